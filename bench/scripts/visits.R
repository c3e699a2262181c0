# The benchmark's work in dplyr. Writes delimited text, because Debian's R has no Parquet writer.
suppressPackageStartupMessages({
  library(dplyr)
  library(readr)
  library(stringr)
})
args <- commandArgs(trailingOnly = TRUE)
visits <- read_delim(args[1], delim = ";", col_types = cols(.default = col_character()),
  na = c("", "N/A", "n/a", "none", "–", "-"), progress = FALSE, trim_ws = FALSE)
visits |>
  mutate(
    across(c(village, item, mender), \(x) gsub("^ +| +$", "", gsub(" +", " ", x, perl = TRUE), perl = TRUE)),
    received = if_else(grepl("^[0-9]{2}/[0-9]{2}/[0-9]{4}$", received),
      paste0(substr(received, 7, 10), "-", substr(received, 4, 5), "-", substr(received, 1, 2)), received),
    parts_cost = suppressWarnings(as.numeric(gsub(",", "", sub("^£", "", parts_cost), fixed = FALSE)))
  ) |>
  mutate(place = row_number()) |>
  arrange(recorded_at, place) |>
  filter(!duplicated(visit_no, fromLast = TRUE)) |>
  arrange(place) |>
  select(-place) |>
  write_csv(paste0(args[2], ".csv"), progress = FALSE)
