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

run <- function(count, fix) {
  parts <- tryCatch({
    values <- fix(seq_len(count))
    if (length(values) == 1 && count > 1) values <- rep(values, count)
    if (length(values) != count) stop("a result of another length")
    vapply(seq_len(count), function(i) shown(values[[i]]), "")
  }, error = function(e) {
    vapply(seq_len(count), function(i) {
      tryCatch(shown(fix(i)), error = function(e) paste0("E", points(conditionMessage(e))))
    }, "")
  })
  writeLines(paste(parts, collapse = ";"), answers)
  flush(answers)
}

source(places[1], encoding = "UTF-8")
close(answers)
