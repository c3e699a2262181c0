SET preserve_insertion_order = true;
CREATE TABLE visits AS
SELECT visit_no, recorded_at,
  CASE WHEN substr(received, 3, 1) = '/' AND regexp_matches(received, '^\d{2}/\d{2}/\d{4}$')
       THEN substr(received, 7, 4) || '-' || substr(received, 4, 2) || '-' || substr(received, 1, 2)
       ELSE received END AS received,
  trim(CASE WHEN contains(village, '  ') THEN regexp_replace(village, ' +', ' ', 'g') ELSE village END) AS village,
  trim(CASE WHEN contains(item, '  ') THEN regexp_replace(item, ' +', ' ', 'g') ELSE item END) AS item,
  fault, weight_kg,
  try_cast(replace(ltrim(parts_cost, '£'), ',', '') AS DECIMAL(18, 2)) AS parts_cost,
  outcome,
  trim(CASE WHEN contains(mender, '  ') THEN regexp_replace(mender, ' +', ' ', 'g') ELSE mender END) AS mender,
  phone, tags
FROM read_csv('{in}', delim = ';', quote = '"', escape = '"', header = true, auto_detect = false, columns = {
  'visit_no': 'VARCHAR', 'recorded_at': 'VARCHAR', 'received': 'VARCHAR', 'village': 'VARCHAR', 'item': 'VARCHAR',
  'fault': 'VARCHAR', 'weight_kg': 'VARCHAR', 'parts_cost': 'VARCHAR', 'outcome': 'VARCHAR', 'mender': 'VARCHAR',
  'phone': 'VARCHAR', 'tags': 'VARCHAR'}, nullstr = ['', 'N/A', 'n/a', 'none', '–', '-']);
DELETE FROM visits WHERE rowid IN (
  SELECT p FROM (
    SELECT a.rowid AS p, row_number() OVER (PARTITION BY a.visit_no ORDER BY a.recorded_at DESC NULLS LAST, a.rowid DESC) AS n
    FROM visits a SEMI JOIN (SELECT visit_no FROM visits GROUP BY visit_no HAVING count(*) > 1) r USING (visit_no))
  WHERE n > 1);
COPY visits TO '{out}.parquet' (FORMAT parquet, COMPRESSION zstd);
