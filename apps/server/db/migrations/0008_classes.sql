CREATE TABLE "invitations" (
	"code" text PRIMARY KEY NOT NULL,
	"class_id" uuid NOT NULL,
	"role" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "term" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "role" text DEFAULT 'student' NOT NULL;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "last_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "memberships_user" ON "memberships" USING btree ("user_id");--> statement-breakpoint
UPDATE "memberships" SET "role" = "users"."role" FROM "users" WHERE "users"."id" = "memberships"."user_id";--> statement-breakpoint
ALTER TABLE "users" DROP COLUMN "role";