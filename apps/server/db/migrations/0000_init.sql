CREATE TABLE "assignments" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"class_id" uuid NOT NULL,
	"exercise_id" text NOT NULL,
	"exercise_version" integer NOT NULL,
	"place" integer NOT NULL,
	"due_at" timestamp with time zone,
	"is_coach_on" boolean NOT NULL,
	"attempts_allowed" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "attempts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"assignment_id" uuid NOT NULL,
	"student_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"opened_at" timestamp with time zone DEFAULT now() NOT NULL,
	"handed_in_at" timestamp with time zone,
	CONSTRAINT "attempts_number" UNIQUE("assignment_id","student_id","number")
);
--> statement-breakpoint
CREATE TABLE "classes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"school_name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "exercises" (
	"id" text NOT NULL,
	"version" integer NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "exercises_id_version_pk" PRIMARY KEY("id","version")
);
--> statement-breakpoint
CREATE TABLE "lane_events" (
	"attempt_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"actor_id" uuid NOT NULL,
	"writer" text NOT NULL,
	"client_seq" integer NOT NULL,
	"event" jsonb NOT NULL,
	CONSTRAINT "lane_events_attempt_id_seq_pk" PRIMARY KEY("attempt_id","seq")
);
--> statement-breakpoint
CREATE TABLE "marking_revisions" (
	"exercise_id" text NOT NULL,
	"exercise_version" integer NOT NULL,
	"revision" integer NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "marking_revisions_exercise_id_exercise_version_revision_pk" PRIMARY KEY("exercise_id","exercise_version","revision")
);
--> statement-breakpoint
CREATE TABLE "memberships" (
	"class_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	CONSTRAINT "memberships_class_id_user_id_pk" PRIMARY KEY("class_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "rulings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"attempt_id" uuid NOT NULL,
	"version" text NOT NULL,
	"marking_revision" integer NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"total" double precision NOT NULL,
	"body" jsonb NOT NULL,
	CONSTRAINT "rulings_once" UNIQUE("attempt_id","version","marking_revision")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"sid" varchar PRIMARY KEY NOT NULL,
	"sess" json NOT NULL,
	"expire" timestamp (6) NOT NULL
);
--> statement-breakpoint
CREATE TABLE "users" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"login" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text NOT NULL,
	CONSTRAINT "users_login_unique" UNIQUE("login")
);
--> statement-breakpoint
ALTER TABLE "assignments" ADD CONSTRAINT "assignments_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assignments" ADD CONSTRAINT "assignments_exercise_id_exercise_version_exercises_id_version_fk" FOREIGN KEY ("exercise_id","exercise_version") REFERENCES "public"."exercises"("id","version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attempts" ADD CONSTRAINT "attempts_assignment_id_assignments_id_fk" FOREIGN KEY ("assignment_id") REFERENCES "public"."assignments"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attempts" ADD CONSTRAINT "attempts_student_id_users_id_fk" FOREIGN KEY ("student_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lane_events" ADD CONSTRAINT "lane_events_attempt_id_attempts_id_fk" FOREIGN KEY ("attempt_id") REFERENCES "public"."attempts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marking_revisions" ADD CONSTRAINT "marking_revisions_exercise_id_exercise_version_exercises_id_version_fk" FOREIGN KEY ("exercise_id","exercise_version") REFERENCES "public"."exercises"("id","version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "memberships" ADD CONSTRAINT "memberships_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "memberships" ADD CONSTRAINT "memberships_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rulings" ADD CONSTRAINT "rulings_attempt_id_attempts_id_fk" FOREIGN KEY ("attempt_id") REFERENCES "public"."attempts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "session_expire" ON "session" USING btree ("expire");