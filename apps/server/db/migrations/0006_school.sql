ALTER TABLE "regrades" DROP CONSTRAINT "regrades_once";--> statement-breakpoint
ALTER TABLE "marking_revisions" DROP CONSTRAINT "marking_revisions_exercise_id_exercise_version_revision_pk";--> statement-breakpoint
ALTER TABLE "marking_revisions" ADD COLUMN "school" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "regrades" ADD COLUMN "school" text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE "regrades" r SET "school" = o.school FROM (
  SELECT a.exercise_id, a.exercise_version, min(c.school_name) AS school FROM "assignments" a JOIN "classes" c ON c.id = a.class_id
  GROUP BY a.exercise_id, a.exercise_version HAVING count(DISTINCT c.school_name) = 1
) o WHERE o.exercise_id = r.exercise_id AND o.exercise_version = r.exercise_version;--> statement-breakpoint
UPDATE "marking_revisions" m SET "school" = r.school FROM "regrades" r
  WHERE r.exercise_id = m.exercise_id AND r.exercise_version = m.exercise_version AND r.revision = m.revision;--> statement-breakpoint
ALTER TABLE "marking_revisions" ADD CONSTRAINT "marking_revisions_exercise_id_exercise_version_school_revision_pk" PRIMARY KEY("exercise_id","exercise_version","school","revision");--> statement-breakpoint
ALTER TABLE "regrades" ADD CONSTRAINT "regrades_once" UNIQUE("exercise_id","exercise_version","school","revision");
