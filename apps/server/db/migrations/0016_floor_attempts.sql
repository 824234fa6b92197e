ALTER TABLE "floor_lanes" DROP CONSTRAINT "floor_lanes_once";--> statement-breakpoint
ALTER TABLE "floor_lanes" ADD COLUMN "number" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "floor_lanes" ADD CONSTRAINT "floor_lanes_once" UNIQUE("exercise_id","student_id","number");