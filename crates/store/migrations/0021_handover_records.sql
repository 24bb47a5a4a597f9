-- What a parcel was when it left lies in a file of its own beside the photographs, under its digest. Its row keeps what lists, the
-- search and the log show. A parcel that was taken back to work keeps the record of each time that it left.
CREATE TABLE handover_record (
    studio_id uuid NOT NULL,
    shipment_id uuid NOT NULL,
    -- SHA-256 of the file.
    digest bytea NOT NULL CHECK (length(digest) = 32),
    bytes integer NOT NULL CHECK (bytes > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, shipment_id, digest),
    FOREIGN KEY (studio_id, shipment_id) REFERENCES shipment (studio_id, id) ON DELETE CASCADE
);
ALTER TABLE shipment ALTER COLUMN worked DROP NOT NULL;
-- The record that holds what it was; null while it is at work, and until the file of what left is on the disk.
ALTER TABLE shipment ADD COLUMN record bytea;
ALTER TABLE shipment ADD CHECK (record IS NULL OR handed IS NOT NULL);
ALTER TABLE shipment ADD CHECK (worked IS NOT NULL OR record IS NOT NULL);
CREATE INDEX shipment_unrecorded ON shipment (studio_id, id) WHERE handed IS NOT NULL AND record IS NULL;
