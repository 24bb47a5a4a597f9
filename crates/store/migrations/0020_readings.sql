-- What the scale read was noted by the plan of its parcel, so that every edition of the program ended it. A box that nobody changed
-- since is as it was weighed: its reading stands without a note, and the next edit notes it by what was packed.
UPDATE shipment_state AS stood
SET inputs = stood.inputs #- '{parcel,as_packed}'
FROM (
    SELECT studio_id, shipment_id, state, inputs, first_value(inputs) OVER (
        PARTITION BY studio_id, shipment_id, (inputs -> 'parcel') - 'as_packed' ORDER BY state
    ) AS weighed
    FROM shipment_state
    WHERE inputs #> '{parcel,as_packed}' IS NOT NULL
) AS read
WHERE stood.studio_id = read.studio_id AND stood.shipment_id = read.shipment_id AND stood.state = read.state
    AND stood.inputs #>> '{parcel,as_packed}' ~ '^[0-9a-f]+$'
    AND (
        SELECT bool_and(read.inputs -> part IS NOT DISTINCT FROM weighed -> part)
        FROM unnest(ARRAY['piece', 'others', 'together', 'choices', 'gift', 'enclosures']) AS part
    )
    -- A tick that was taken back opened it.
    AND NOT EXISTS (
        SELECT FROM jsonb_object_keys(coalesce(weighed -> 'packed', '{}')) AS step
        WHERE NOT coalesce(read.inputs -> 'packed', '{}') ? step
    );
