-- Whether the start files of a studio were taken in to their end: one that was killed half-way is taken in anew. Those of before were.
ALTER TABLE studio ADD COLUMN taken_in boolean NOT NULL DEFAULT true;
