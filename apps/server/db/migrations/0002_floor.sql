CREATE TABLE "floor_entries" (
	"id" uuid PRIMARY KEY NOT NULL,
	"lane_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	"by_name" text NOT NULL,
	"entry" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "floor_exercises" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"class_id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"body" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "floor_lanes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"exercise_id" uuid NOT NULL,
	"student_id" uuid NOT NULL,
	"opened_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "floor_lanes_once" UNIQUE("exercise_id","student_id")
);
--> statement-breakpoint
ALTER TABLE "floor_entries" ADD CONSTRAINT "floor_entries_lane_id_floor_lanes_id_fk" FOREIGN KEY ("lane_id") REFERENCES "public"."floor_lanes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "floor_exercises" ADD CONSTRAINT "floor_exercises_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "floor_lanes" ADD CONSTRAINT "floor_lanes_exercise_id_floor_exercises_id_fk" FOREIGN KEY ("exercise_id") REFERENCES "public"."floor_exercises"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "floor_lanes" ADD CONSTRAINT "floor_lanes_student_id_users_id_fk" FOREIGN KEY ("student_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "floor_entries_lane" ON "floor_entries" USING btree ("lane_id");