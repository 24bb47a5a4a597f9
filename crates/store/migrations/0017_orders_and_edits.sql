-- How the tables of shops were read, the last one first; null before the first.
ALTER TABLE studio ADD COLUMN order_tables jsonb;
UPDATE studio SET order_tables = jsonb_build_array(jsonb_build_object(
    'head', '[]'::jsonb, 'table', jsonb_build_object('columns', order_columns)
)) WHERE order_columns IS NOT NULL;
-- A product that was met before is found by its title or by the shop's code of it.
CREATE INDEX shipment_by_title ON shipment (studio_id, lower(title));
CREATE INDEX shipment_state_by_sku ON shipment_state (studio_id, (inputs->'order'->>'sku')) WHERE inputs->'order' ? 'sku';
-- What the last edits changed, each by its version, so that an edit that has not seen them can be laid beside them.
ALTER TABLE shipment ADD COLUMN recent jsonb NOT NULL DEFAULT '[]';
-- What layouts have cut for a shipment.
CREATE INDEX cutting_of_shipment ON cutting USING gin ((body->'shipments') jsonb_path_ops);
