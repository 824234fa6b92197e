ALTER TABLE "floor_entries" ADD COLUMN "received_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
UPDATE "floor_entries" SET "received_at" = "at";
