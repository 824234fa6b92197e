ALTER TABLE "attempts" DROP CONSTRAINT "attempts_number";--> statement-breakpoint
ALTER TABLE "attempts" ADD CONSTRAINT "attempts_number" UNIQUE("assignment_id","student_id","is_trial","number");