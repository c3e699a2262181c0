COPY (
  SELECT visit_no, recorded_at,
    CASE WHEN regexp_matches(received, '^\d{2}/\d{2}/\d{4}$')
         THEN substr(received, 7, 4) || '-' || substr(received, 4, 2) || '-' || substr(received, 1, 2)
         ELSE received END AS received,
    trim(regexp_replace(village, ' +', ' ', 'g')) AS village,
    trim(regexp_replace(item, ' +', ' ', 'g')) AS item,
    fault, weight_kg,
    try_cast(replace(ltrim(parts_cost, '£'), ',', '') AS DECIMAL(18, 2)) AS parts_cost,
    outcome,
    trim(regexp_replace(mender, ' +', ' ', 'g')) AS mender,
    phone, tags
  FROM read_csv('{in}', delim = ';', header = true, all_varchar = true, nullstr = ['', 'N/A', 'n/a', 'none', '–', '-'])
  QUALIFY row_number() OVER (PARTITION BY visit_no ORDER BY recorded_at DESC) = 1
) TO '{out}.parquet' (FORMAT parquet, COMPRESSION zstd);
