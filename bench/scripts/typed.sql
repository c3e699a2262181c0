COPY (
  SELECT * REPLACE (CASE WHEN regexp_full_match(weight_kg, '[0-9]+([.][0-9]+)?') THEN CAST(weight_kg AS DECIMAL(9, 3)) END AS weight_kg,
    CAST(try_strptime(received, '%d/%m/%Y') AS DATE) AS received)
  FROM read_csv('{in}', delim = ';', quote = '"', escape = '"', header = true, auto_detect = false, columns = {
  'visit_no': 'VARCHAR', 'recorded_at': 'VARCHAR', 'received': 'VARCHAR', 'village': 'VARCHAR', 'item': 'VARCHAR',
  'fault': 'VARCHAR', 'weight_kg': 'VARCHAR', 'parts_cost': 'VARCHAR', 'outcome': 'VARCHAR', 'mender': 'VARCHAR',
  'phone': 'VARCHAR', 'tags': 'VARCHAR'}, nullstr = ['', 'N/A', 'n/a', 'none', '–', '-'])
) TO '{out}' (FORMAT parquet);
