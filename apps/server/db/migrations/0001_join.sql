ALTER TABLE "users" ALTER COLUMN "password_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "join_code" text;--> statement-breakpoint
ALTER TABLE "classes" ADD CONSTRAINT "classes_joinCode_unique" UNIQUE("join_code");