ALTER TABLE "users" ADD COLUMN "own_code" text;--> statement-breakpoint
ALTER TABLE "users" ADD CONSTRAINT "users_ownCode_unique" UNIQUE("own_code");--> statement-breakpoint
UPDATE "users" SET "own_code" = upper(substr(translate(md5(random()::text || id::text), '0156', 'aceh'), 1, 8)) WHERE "password_hash" IS NULL AND "role" = 'student';
