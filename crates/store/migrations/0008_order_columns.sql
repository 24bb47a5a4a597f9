-- Which columns of a shop's table hold what, as they were named the last time; nothing before that.
ALTER TABLE studio ADD COLUMN order_columns jsonb;
