-- Why the studio asks its owner before it speaks to a carrier: it was read in from a backup, and the one that the backup was made of
-- may still run.
ALTER TABLE studio ADD COLUMN held text CHECK (held IN ('restored'));
-- What a plan followed may be written before the rules themselves, within one transaction.
ALTER TABLE shipment RENAME CONSTRAINT shipment_studio_id_rules_version_fkey TO shipment_rules;
ALTER TABLE shipment ALTER CONSTRAINT shipment_rules DEFERRABLE INITIALLY IMMEDIATE;
