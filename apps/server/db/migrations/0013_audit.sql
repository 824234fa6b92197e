CREATE TABLE "audit" (
	"id" serial PRIMARY KEY NOT NULL,
	"class_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_name" text NOT NULL,
	"what" text NOT NULL,
	"about" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_class_id_classes_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."classes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audit_class" ON "audit" USING btree ("class_id","at");