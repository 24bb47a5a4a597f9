-- An edit of the stores says which version it was based on, as an edit of a shipment does.
ALTER TABLE catalogue ADD COLUMN version integer NOT NULL DEFAULT 1 CHECK (version > 0);
-- The edition of the program that last wrote them; an older one did not know every class and field.
ALTER TABLE catalogue ADD COLUMN edition integer NOT NULL DEFAULT 1;

-- Named sets of rules that a studio keeps beside the ones that it follows.
CREATE TABLE preset (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    name text NOT NULL,
    rules jsonb NOT NULL,
    PRIMARY KEY (studio_id, name)
);
