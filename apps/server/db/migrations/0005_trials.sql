CREATE TABLE "marking_trials" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"assignment_id" uuid NOT NULL,
	"marking" jsonb NOT NULL,
	"lanes" integer NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone,
	"cancelled_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "trial_marks" (
	"trial_id" uuid NOT NULL,
	"attempt_id" uuid NOT NULL,
	"total" double precision NOT NULL,
	"out_of" double precision NOT NULL,
	CONSTRAINT "trial_marks_trial_id_attempt_id_pk" PRIMARY KEY("trial_id","attempt_id")
);
--> statement-breakpoint
ALTER TABLE "marking_trials" ADD CONSTRAINT "marking_trials_assignment_id_assignments_id_fk" FOREIGN KEY ("assignment_id") REFERENCES "public"."assignments"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_marks" ADD CONSTRAINT "trial_marks_trial_id_marking_trials_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."marking_trials"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_marks" ADD CONSTRAINT "trial_marks_attempt_id_attempts_id_fk" FOREIGN KEY ("attempt_id") REFERENCES "public"."attempts"("id") ON DELETE cascade ON UPDATE no action;