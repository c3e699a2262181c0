package fixshelf.render.r;

import java.util.LinkedHashMap;
import java.util.SequencedMap;

/// Functions on whole tables that R lacks, or has with another meaning of missing, order or ties.
final class RTables {
    /// Those that need others come after them.
    static final SequencedMap<String, String> HELPERS = new LinkedHashMap<>();

    private RTables() {}

    static {
        HELPERS.put(".in_order", """
            # The places of the rows by columns with directions, missing last, then by place.
            .in_order <- function(df, by, descending, last_place = FALSE, backwards = FALSE) {
              parts <- unlist(lapply(unname(as.list(df[by])), function(x) list(is.na(x), x)), recursive = FALSE)
              down <- c(as.vector(rbind(rep(FALSE, length(by)), descending)), last_place)
              places <- do.call(order, c(parts, list(seq_len(nrow(df)), decreasing = down, method = "radix")))
              if (backwards) rev(places) else places
            }
            """);
        HELPERS.put(".group_numbers", """
            # A number for each row, the same where all keys are equal. Missing equals missing.
            .group_numbers <- function(df, keys) {
              if (length(keys) == 0) rep(1L, nrow(df)) else as.integer(vctrs::vec_group_id(df[keys]))
            }
            """);
        HELPERS.put(".first_of", """
            # Of the rows with equal keys the first one by an order. Those that stay keep their places.
            .first_of <- function(df, keys, by, descending, last_place) {
              places <- .in_order(df, by, descending, last_place)
              df[sort(places[!duplicated(.group_numbers(df, keys)[places])]), , drop = FALSE]
            }
            """);
        HELPERS.put(".aggregate", """
            # What is made of the values of a group. Missing ones are passed over; counts are numbers like all others.
            .aggregate <- function(how, values, separator = "") {
              known <- values[!is.na(values)]
              if (how == "rows") return(as.numeric(length(values)))
              if (how == "count") return(as.numeric(length(known)))
              if (how == "distinct") return(as.numeric(length(unique(known))))
              if (length(known) == 0) return(values[NA_integer_][1])
              if (how == "sum") return(sum(known))
              if (how == "listed") return(paste(known, collapse = separator))
              sorted <- known[order(known, method = "radix")]
              if (how == "least") sorted[1] else sorted[length(sorted)]
            }
            """);
        HELPERS.put(".windowed", """
            # A column made part by part: `make` gets the places of a part in order, and gives a value for each.
            .windowed <- function(df, within, by, descending, backwards, like, make) {
              places <- .in_order(df, by, descending, backwards = backwards)
              cells <- rep(like[NA_integer_], nrow(df))
              for (part in split(places, .group_numbers(df, within)[places])) cells[part] <- make(part)
              cells
            }
            """);
        HELPERS.put(".ranked", """
            # Numbers that rows share which are equal in the columns of an order.
            .ranked <- function(df, by, gaps) {
              groups <- .group_numbers(df, by)
              function(places) {
                new <- c(TRUE, diff(groups[places]) != 0)
                if (gaps) which(new)[cumsum(new)] else cumsum(new)
              }
            }
            """);
        HELPERS.put(".neighbour", """
            # The values so many rows further on.
            .neighbour <- function(values, steps) {
              function(places) {
                wanted <- seq_along(places) + steps
                wanted[wanted < 1 | wanted > length(places)] <- NA
                values[places[wanted]]
              }
            }
            """);
        HELPERS.put(".last_filled", """
            # The value of each row, or else the last one before it that is not missing.
            .last_filled <- function(values) {
              function(places) {
                found <- values[places]
                at <- cumsum(!is.na(found))
                c(values[NA_integer_], found[!is.na(found)])[at + 1]
              }
            }
            """);
        HELPERS.put(".so_far", """
            # The aggregate of the rows up to each.
            .so_far <- function(how, values) {
              function(places) do.call(c, lapply(seq_along(places), function(i) .aggregate(how, values[places[1:i]])))
            }
            """);
        HELPERS.put(".of_all", """
            # The aggregate of all rows of a part, beside each.
            .of_all <- function(how, values) function(places) rep(.aggregate(how, values[places]), length(places))
            """);
        HELPERS.put(".grouped", """
            # One row for each group, in the order of their first rows. Without keys one row.
            .grouped <- function(df, keys, measures) {
              groups <- .group_numbers(df, keys)
              parts <- if (length(keys) == 0) list(seq_len(nrow(df))) else split(seq_len(nrow(df)), factor(groups, unique(groups)))
              result <- df[if (length(keys) == 0) integer(0) else match(unique(groups), groups), keys, drop = FALSE]
              rownames(result) <- NULL
              if (length(measures) == 0) return(result)
              columns <- lapply(measures, function(m) {
                values <- if (is.null(m$of)) rep(1, nrow(df)) else df[[m$of]]
                made <- lapply(parts, function(p) .aggregate(m$how, values[p], m$separator))
                if (length(made) == 0) (if (m$how %in% c("rows", "count", "distinct")) numeric(0) else values[0]) else do.call(c, unname(made))
              })
              names(columns) <- vapply(measures, function(m) m$name, "")
              made <- as.data.frame(columns, check.names = FALSE, stringsAsFactors = FALSE)
              names(made) <- names(columns)
              if (length(keys) == 0) made else { all <- cbind(result, made); names(all) <- c(keys, names(columns)); all }
            }
            """);
        HELPERS.put(".pairs_of", """
            # The places of left and right rows whose keys are equal, by left row, then by right row.
            .pairs_of <- function(left, right, on_left, on_right, missing) {
              keys <- paste0("k", seq_along(on_left))
              a <- setNames(as.data.frame(unname(as.list(left[on_left])), col.names = keys, stringsAsFactors = FALSE), keys)
              b <- setNames(as.data.frame(unname(as.list(right[on_right])), col.names = keys, stringsAsFactors = FALSE), keys)
              a$l <- seq_len(nrow(a))
              b$r <- seq_len(nrow(b))
              pairs <- suppressWarnings(inner_join(a, b, by = keys, na_matches = missing))
              pairs[order(pairs$l, pairs$r), c("l", "r")]
            }
            """);
        HELPERS.put(".joined", """
            # The rows of two tables side by side, by left row, then by right row.
            .joined <- function(left, right, on_left, on_right, taken, made, all_left, missing = "never") {
              pairs <- .pairs_of(left, right, on_left, on_right, missing)
              if (all_left) {
                alone <- setdiff(seq_len(nrow(left)), pairs$l)
                pairs <- rbind(pairs, data.frame(l = alone, r = rep(NA_integer_, length(alone))))
                pairs <- pairs[order(pairs$l, pairs$r), ]
              }
              result <- left[pairs$l, , drop = FALSE]
              for (i in seq_along(taken)) result[[made[i]]] <- right[[taken[i]]][pairs$r]
              result
            }
            """);
        HELPERS.put(".rows_with", """
            # The left rows that meet any right row, or none.
            .rows_with <- function(left, right, on_left, on_right, wanted, missing = "never") {
              met <- seq_len(nrow(left)) %in% .pairs_of(left, right, on_left, on_right, missing)$l
              left[met == wanted, , drop = FALSE]
            }
            """);
        HELPERS.put(".put_under", """
            # The rows of another table below, its columns under other names.
            .put_under <- function(df, other, names) {
              names(other) <- names
              bind_rows(df, other)
            }
            """);
        HELPERS.put(".unpivoted", """
            # A row for each set of columns, row by row.
            .unpivoted <- function(df, others, sets, names, name, values, keep_missing) {
              rows <- rep(seq_len(nrow(df)), each = length(sets))
              set <- rep(seq_along(sets), times = nrow(df))
              result <- df[rows, others, drop = FALSE]
              result[[name]] <- names[set]
              for (i in seq_along(values)) {
                cells <- do.call(c, lapply(sets, function(s) df[[s[i]]]))
                result[[values[i]]] <- cells[(set - 1) * nrow(df) + rows]
              }
              if (keep_missing) result else result[rowSums(!is.na(result[values])) > 0, , drop = FALSE]
            }
            """);
    }
}
