-- By which edition of the program's sums a plan was worked out; 0 where that is not known yet. A plan of an earlier one is worked out
-- anew when it is read, or in the background.
ALTER TABLE shipment ADD COLUMN plan_edition integer NOT NULL DEFAULT 0;
