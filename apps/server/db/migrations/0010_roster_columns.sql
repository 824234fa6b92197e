CREATE TABLE "roster_columns" (
	"user_id" uuid NOT NULL,
	"headings" text NOT NULL,
	"columns" jsonb NOT NULL,
	CONSTRAINT "roster_columns_user_id_headings_pk" PRIMARY KEY("user_id","headings")
);
--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "student_number" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "roster_columns" ADD CONSTRAINT "roster_columns_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;