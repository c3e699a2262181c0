# Runs fixes on made-up columns: tasks come from one file of R code, one line of answers a task goes to another.
suppressPackageStartupMessages({
  library(dplyr)
  library(stringr)
})
options(warn = -1)
places <- commandArgs(trailingOnly = TRUE)
answers <- file(places[2], "w")

points <- function(text) paste(utf8ToInt(enc2utf8(text)), collapse = ",")

shown <- function(value) {
  if (length(value) != 1) return(paste0("E", points(paste("a result of length", length(value)))))
  if (is.na(value)) return("N")
  if (is.character(value)) return(paste0("S", points(value)))
  if (is.logical(value)) return(if (value) "T" else "F")
  sprintf("D%.17g", as.numeric(value))
}

# The answers for these rows; where they fail together, in halves, down to the row.
some <- function(rows, fix) {
  tryCatch({
    values <- fix(rows)
    if (length(values) == 1 && length(rows) > 1) values <- rep(values, length(rows))
    if (length(values) != length(rows)) stop("a result of another length")
    vapply(seq_along(rows), function(i) shown(values[[i]]), "")
  }, error = function(e) {
    if (length(rows) == 1) return(paste0("E", points(conditionMessage(e))))
    middle <- length(rows) %/% 2
    c(some(rows[seq_len(middle)], fix), some(rows[(middle + 1):length(rows)], fix))
  })
}

run <- function(count, fix) {
  parts <- if (count > 0) some(seq_len(count), fix) else character(0)
  writeLines(paste(parts, collapse = ";"), answers)
  flush(answers)
}

run_job <- function(job, expected) {
  result <- job()
  if (!identical(enc2utf8(names(result)), enc2utf8(expected))) {
    stop("the columns that come out are ", toString(names(result)), ", not ", toString(expected))
  }
  parts <- lapply(result, function(column) vapply(seq_along(column), function(i) shown(column[[i]]), ""))
  writeLines(paste(as.vector(t(do.call(cbind, parts))), collapse = ";"), answers)
  flush(answers)
}

# A task that cannot even be read fails alone.
lines <- readLines(places[1], encoding = "UTF-8")
for (task in split(lines, cumsum(lines == "#--- task"))) {
  tryCatch(eval(parse(text = task, encoding = "UTF-8", keep.source = FALSE), globalenv()), error = function(e) {
    writeLines(paste0("!", points(conditionMessage(e))), answers)
    flush(answers)
  })
}
close(answers)
