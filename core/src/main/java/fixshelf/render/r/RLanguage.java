package fixshelf.render.r;

import fixshelf.language.emulation.Folding;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.render.Comments;
import fixshelf.render.JobCode;
import fixshelf.render.TakenNames;
import fixshelf.render.frame.FrameLanguage;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/// R 4.2 and later with dplyr 1.0 and stringr 1.5. Whole numbers are exact below 2^53; beyond that the code stops
/// instead of giving another number.
public final class RLanguage extends FrameLanguage {
    static final TakenNames TAKEN = TakenNames.of(RLanguage.class, "r", false);

    private static final Set<String> KEYWORDS = Set.of(
            "function", "if", "else", "for", "true", "false", "na", "library", "stop", "na_character_", "na_real_");

    /// Functions that R lacks, by name; code that calls one needs it before. Their names begin with a dot, as no
    /// fix's name does.
    private static final Map<String, String> HELPERS = helpers();

    private static Map<String, String> helpers() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put(".nearest", """
            # A floating-point number with so many places, half away from zero: the shortest digits that mean it are rounded.
            .nearest <- function(number, places) {
              number <- case_when(abs(number) < 10^min(15, 18 - places) ~ case_when(abs(number) < 1e-20 ~ 0, TRUE ~ number))
              shortest <- function(x) {
                if (is.na(x)) return(NA_character_)
                for (digits in 15:17) {
                  text <- format(x, digits = digits, scientific = FALSE, trim = TRUE)
                  if (as.numeric(text) == x) break
                }
                text
              }
              .decimal_number(vapply(number, shortest, ""), places)
            }
            """);
        all.put(".code_points", """
            # Texts in an order that goes by code point, whatever the locale.
            .code_points <- function(text) {
              vapply(text, function(t) {
                if (is.na(t)) NA_character_ else paste(sprintf("%06X", utf8ToInt(t)), collapse = "")
              }, "", USE.NAMES = FALSE)
            }
            """);
        all.put(".whole_number", """
            # The whole number that a text says, or NA. R's numbers are exact below 2^53.
            .whole_number <- function(text) {
              shaped <- coalesce(str_detect(text, "^[\\\\t-\\\\r ]*[+-]?[0-9]{1,38}[\\\\t-\\\\r ]*\\\\z"), FALSE)
              digits <- str_remove(str_remove_all(text, "[^0-9]"), "^0+(?=[0-9])")
              largest <- case_when(str_detect(text, fixed("-")) ~ "9223372036854775808", TRUE ~ "9223372036854775807")
              fits <- str_length(digits) < 19 | (str_length(digits) == 19 & digits <= largest)
              value <- suppressWarnings(as.numeric(case_when(shaped & fits ~ text)))
              if (any(abs(value) >= 2^53, na.rm = TRUE)) stop("R holds whole numbers exactly only below 2^53")
              value
            }
            """);
        all.put(".within", """
            # A whole number, or NA beyond 64 bits. R's numbers are exact below 2^53.
            .within <- function(number) {
              number <- case_when(abs(number) < 2^63 * (1 + 1e-9) ~ number)
              if (any(abs(number) >= 2^53, na.rm = TRUE)) stop("R holds whole numbers exactly only below 2^53")
              number
            }
            """);
        all.put(".decimal_number", """
            # The number that a text says, with so many places after the point, or NA. R keeps 15 digits exactly.
            .decimal_number <- function(text, places) {
              shape <- "^[\\\\t-\\\\r ]*[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)[\\\\t-\\\\r ]*\\\\z"
              shaped <- coalesce(str_length(text) <= 100 & str_detect(text, shape), FALSE)
              bare <- str_remove_all(text, "[\\\\t-\\\\r +-]")
              whole <- str_remove(str_extract(bare, "^[0-9]*"), "^0+")
              part <- coalesce(str_sub(str_extract(bare, "[.][0-9]*\\\\z"), 2), "")
              kept <- str_sub(str_pad(part, places, "right", "0"), 1, places)
              up <- str_detect(part, str_c("^[0-9]{", places, "}[5-9]"))
              value <- as.numeric(str_c("0", whole, kept)) + coalesce(up, FALSE)
              fits <- str_length(whole) <= 18 - places & value < 10^18
              value <- case_when(shaped & fits ~ value)
              if (any(value >= 10^15, na.rm = TRUE)) stop("R keeps only 15 digits of a decimal number exactly")
              case_when(str_detect(text, fixed("-")) ~ -value, TRUE ~ value) / 10^places
            }
            """);
        all.put(".float_number", """
            # The floating-point number that a text says, or NA. R reads 15 digits with powers up to 22 exactly.
            .float_number <- function(text) {
              shape <- "^[\\\\t-\\\\r ]*[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)([eE][+-]?[0-9]{1,3})?[\\\\t-\\\\r ]*\\\\z"
              text <- case_when(str_length(text) <= 100 & str_detect(text, shape) ~ str_trim(text))
              number <- str_extract(text, "^[+-]?[0-9.]+")
              part <- coalesce(str_extract(number, "(?<=[.])[0-9]+"), "")
              digits <- str_remove(str_remove_all(number, "[^0-9]"), "^0+")
              zeros <- str_length(str_extract(digits, "0*\\\\z"))
              digits <- str_sub(digits, 1, str_length(digits) - zeros)
              power <- coalesce(as.numeric(str_extract(text, "(?<=[eE])[+-]?[0-9]+")), 0) - str_length(part) + zeros
              size <- str_length(digits) + power
              number <- case_when(is.na(digits) ~ NA_real_, digits == "" | size < -299 ~ 0, size > 301 | (size == 301 & digits != "1") ~ NA_real_,
                TRUE ~ 1)
              asked <- !is.na(number) & number == 1
              if (any(asked & (str_length(digits) > 15 | abs(power) > 22))) {
                stop("R reads only 15 digits and powers up to 22 of a floating-point number exactly")
              }
              whole <- suppressWarnings(as.numeric(case_when(asked ~ digits)))
              number <- case_when(asked & power < 0 ~ whole / 10^-power, asked ~ whole * 10^power, TRUE ~ number)
              case_when(str_detect(text, "^-") ~ -number, TRUE ~ number)
            }
            """);
        all.put(".later", """
            # A day so many days later, or NA outside the calendar.
            .later <- function(day, days) {
              found <- day + pmin(pmax(days, -4e6), 4e6)
              case_when(found >= as.Date("0001-01-01") & found <= as.Date("9999-12-31") ~ found)
            }
            """);
        all.put(".months_later", """
            # The same day so many months later, or the last of the month; NA outside the calendar.
            .months_later <- function(day, months) {
              parts <- as.POSIXlt(day)
              count <- (parts$year + 1900) * 12 + parts$mon + pmin(pmax(months, -2e5), 2e5)
              first <- function(n) {
                year <- n %/% 12
                month <- n %% 12 + 1
                y <- year - (month <= 2)
                era <- y %/% 400
                of_era <- y - era * 400
                of_year <- (153 * (month + ifelse(month > 2, -3, 9)) + 2) %/% 5
                as.Date(era * 146097 + of_era * 365 + of_era %/% 4 - of_era %/% 100 + of_year - 719468, origin = "1970-01-01")
              }
              found <- first(count) + pmin(parts$mday, as.numeric(first(count + 1) - first(count))) - 1
              case_when(count >= 12 & count < 120000 ~ found)
            }
            """);
        all.put(".iso_time", """
            # The time that a text writes as yyyy-MM-dd HH:mm:ss, perhaps with a fraction, or NA.
            .iso_time <- function(text) {
              shaped <- str_detect(text, "^[0-9]{4}-[0-9]{2}-[0-9]{2} ([01][0-9]|2[0-3])(:[0-5][0-9]){2}([.][0-9]{1,6})?\\\\z")
              text <- case_when(shaped ~ text)
              part <- function(from) as.numeric(substr(text, from, from + 1))
              days <- as.numeric(.iso_date(substr(text, 1, 10)))
              micros <- as.numeric(substr(paste0(substr(text, 21, 26), "000000"), 1, 6))
              .moment(days * 86400 + part(12) * 3600 + part(15) * 60 + part(18), micros)
            }
            """);
        all.put(".time_text", """
            # A time as yyyy-MM-dd HH:mm:ss, with the digits of its fraction that are not needless zeros.
            .time_text <- function(time) {
              count <- .seconds(time)
              micros <- .micros(time)
              day <- .date_text(as.Date(count %/% 86400, origin = "1970-01-01"))
              clock <- sprintf("%02d:%02d:%02d", as.integer(count %/% 3600 %% 24), as.integer(count %/% 60 %% 60),
                as.integer(count %% 60))
              part <- if_else(micros > 0, str_remove(sprintf(".%06d", as.integer(micros)), "0+\\\\z"), "")
              case_when(!is.na(count) ~ paste0(day, " ", clock, part))
            }
            """);
        all.put(".micros_later", """
            # A time so many microseconds later, or NA outside the calendar.
            .micros_later <- function(time, micros) {
              part <- .micros(time) + micros %% 1e6
              count <- .seconds(time) + micros %/% 1e6 + part %/% 1e6
              inside <- count >= -62135596800 & count <= 253402300799
              .moment(case_when(inside ~ count), case_when(inside ~ part %% 1e6))
            }
            """);
        all.put(".seconds_from", """
            # The whole seconds from a time to another, towards zero.
            .seconds_from <- function(start, end) {
              whole <- .seconds(end) - .seconds(start)
              more <- .micros(end) - .micros(start)
              whole + case_when(whole > 0 & more < 0 ~ -1, whole < 0 & more > 0 ~ 1, is.na(whole) ~ NA_real_, TRUE ~ 0)
            }
            """);
        all.put(".seconds_later", """
            # A time so many seconds later, or NA outside the calendar.
            .seconds_later <- function(time, seconds) {
              count <- .seconds(time) + pmin(pmax(seconds, -4e11), 4e11)
              .moment(case_when(count >= -62135596800 & count <= 253402300799 ~ count), .micros(time))
            }
            """);
        all.put(".micros", """
            # The microseconds of the second of a time.
            .micros <- function(time) round((as.numeric(time) - .seconds(time)) * 1e6)
            """);
        all.put(".seconds", """
            # The whole seconds of a time, which R counts in floating point.
            .seconds <- function(time) {
              count <- as.numeric(time)
              begun <- floor(count)
              begun + (round((count - begun) * 1e6) >= 1e6)
            }
            """);
        all.put(".moment", """
            # The time that is so many seconds after the beginning of 1970 and some microseconds.
            .moment <- function(seconds, micros) {
              far <- micros > 0 & abs(seconds) > 2^32
              if (any(far, na.rm = TRUE)) stop("R keeps microseconds exactly only from 1834 to 2105")
              .time(seconds + micros / 1e6)
            }
            """);
        all.put(".iso_date", """
            # The day that a text writes as yyyy-MM-dd, or NA.
            .iso_date <- function(text) {
              as.Date(case_when(str_detect(text, "^(?!0000)[0-9]{4}-[0-9]{2}-[0-9]{2}\\\\z") ~ text), "%Y-%m-%d")
            }
            """);
        all.put(".date_text", """
            # A day as yyyy-MM-dd, with four digits for every year.
            .date_text <- function(day) {
              parts <- as.POSIXlt(day)
              case_when(!is.na(day) ~ sprintf("%04d-%02d-%02d", as.integer(parts$year + 1900), parts$mon + 1L, parts$mday))
            }
            """);
        all.put(".time", """
            # The time so many seconds after the beginning of 1970, in universal time.
            .time <- function(count) as.POSIXct(count, origin = "1970-01-01", tz = "UTC")
            """);
        all.put(".rounded", """
            # A number with so many places, half away from zero; NA when it has more than 18 digits.
            .rounded <- function(number, places) {
              fits <- abs(number) < 10^(18 - places)
              .exactly(case_when(fits ~ number), places)
            }
            """);
        all.put(".exactly", """
            # A number of so many places, as near as R comes. It keeps 15 digits exactly, and stops beyond.
            .exactly <- function(number, places) {
              units <- signif(abs(number) * 10^places, 15)
              if (any(units >= 10^15, na.rm = TRUE)) stop("R keeps only 15 digits of a decimal number exactly")
              sign(number) * floor(units + 0.5) / 10^places
            }
            """);
        all.put(".divided", """
            # A quotient with so many places, half away from zero, counted in whole units.
            .divided <- function(over, under, over_places, under_places, places) {
              negative <- (over < 0) != (under < 0)
              up <- places + under_places - over_places
              over <- round(abs(over) * 10^over_places) * 10^max(up, 0)
              under <- round(abs(under) * 10^under_places) * 10^max(-up, 0)
              large <- under != 0 & (2 * over + under >= 2^53)
              units <- (2 * over + under) %/% case_when(under != 0 ~ 2 * under)
              large <- (large & units < 1.1e18) | (units >= 1e15 & units < 1e18)
              if (any(large, na.rm = TRUE)) stop("R keeps only 15 digits of a decimal number exactly")
              units <- case_when(units < 1e18 ~ units)
              case_when(negative ~ -units, TRUE ~ units) / 10^places
            }
            """);
        all.put(".quotient", """
            # The whole part of a quotient, towards zero; NA for a divisor of 0.
            .quotient <- function(over, under) {
              under <- case_when(under != 0 ~ under)
              sign(over) * sign(under) * (abs(over) %/% abs(under))
            }
            """);
        all.put(".remainder", """
            # What is left over, with the sign of the dividend; NA for a divisor of 0.
            .remainder <- function(over, under) {
              under <- case_when(under != 0 ~ abs(under))
              sign(over) * (abs(over) - under * (abs(over) %/% under))
            }
            """);
        RTables.HELPERS.sequencedEntrySet().reversed().forEach(h -> all.put(h.getKey(), h.getValue()));
        all.put(".replace_each", """
            # Every occurrence of each text becomes another one, one after the other; the empty text occurs nowhere.
            .replace_each <- function(text, from, to) {
              for (i in which(from != "")) text <- str_replace_all(text, fixed(from[i]), to[i])
              text
            }
            """);
        all.put(".join_present", """
            # The texts that are there, row by row, with a separator between them; NA where none is.
            .join_present <- function(separator, ...) {
              as.character(mapply(function(...) {
                parts <- c(...)
                parts <- parts[!is.na(parts)]
                if (length(parts) > 0) paste(parts, collapse = separator) else NA_character_
              }, ..., USE.NAMES = FALSE))
            }
            """);
        return all;
    }

    @Override
    public String id() {
        return "r";
    }

    @Override
    public String title() {
        return "R, dplyr";
    }

    @Override
    public Set<String> keywords() {
        return KEYWORDS;
    }

    @Override
    public boolean isLimit(String error) {
        return error.contains("R holds whole numbers exactly")
                || error.contains("R keeps only 15 digits")
                || error.contains("R keeps microseconds exactly only")
                || error.contains("R reads only 15 digits");
    }

    /// The packages and the helping functions that a piece of code needs.
    public static String prelude(String code) {
        StringBuilder out = new StringBuilder();
        HELPERS.forEach((name, text) -> {
            if ((code + out).contains(name + "(")) {
                out.insert(0, "\n" + text);
            }
        });
        return out.insert(0, "library(dplyr)\nlibrary(stringr)\n").toString();
    }

    /// How a parameter is called in code.
    public static String argumentName(Parameter parameter) {
        return RWriter.name(parameter.name());
    }

    /// A name as it is written in code.
    public static String name(String name) {
        return RWriter.name(name);
    }

    /// How a fix is called in code.
    public static String functionName(Definition fix) {
        return RWriter.function(fix);
    }

    /// A value as it is written in code; a value that R cannot hold is refused with a [ProblemException].
    public static String literal(Expr.Literal literal) {
        return RLiterals.literal(literal.value(), literal.type());
    }

    @Override
    protected Outcome<String> jobFunction(JobCode job, String name, Function<Expr, Expr> inJob) {
        return RJobs.write(job, RWriter.name(TAKEN.free(name)), inJob);
    }

    /// How a job is called in code.
    public static String functionName(JobCode job) {
        return RWriter.name(TAKEN.free(jobName(job)));
    }

    @Override
    protected String written(Expr expr) {
        return new RWriter(Set.of()).r(expr).text();
    }

    @Override
    protected String before(String code) {
        return prelude(code);
    }

    @Override
    protected String between() {
        return "\n";
    }

    @Override
    protected String function(Definition asked, String about) {
        Definition fix = Folding.of(asked);
        Set<String> fixed = fix.parameters().stream()
                .skip(1)
                .filter(Parameter::fixed)
                .map(Parameter::name)
                .collect(java.util.stream.Collectors.toSet());
        RWriter writer = new RWriter(fixed);
        List<String> signature = new ArrayList<>();
        List<String> lines = new ArrayList<>();
        String first = RWriter.name(fix.parameters().getFirst().name());
        for (int i = 0; i < fix.parameters().size(); i++) {
            Parameter parameter = fix.parameters().get(i);
            String name = RWriter.name(parameter.name());
            signature.add(name
                    + parameter
                            .fallback()
                            .map(f -> " = " + writer.r(typed(f, parameter)).text())
                            .orElse(""));
            String kind = kind(parameter.type());
            if (i == 0) {
                lines.add(name + " <- as." + kind + "(" + name + ")");
            } else if (parameter.fixed()) {
                lines.add("stopifnot(!is.na(" + name + "))");
            } else {
                lines.add(name + " <- rep_len(as." + kind + "(" + name + "), length(" + first + "))");
            }
        }
        fix.body()
                .assignments()
                .forEach(a -> lines.add(
                        RWriter.name(a.name()) + " <- " + writer.r(a.value()).text()));
        String result = writer.r(fix.body().result()).text();
        boolean constant = fix.body().result() instanceof Expr.Literal;
        lines.add(constant ? "rep_len(" + result + ", length(" + first + "))" : result);
        String comment = about.isBlank() ? "" : Comments.line("#", about);
        String remark = TAKEN.remark(title(), fix.name());
        return comment + (remark.isEmpty() ? "" : Comments.line("#", remark)) + RWriter.function(fix) + " <- function("
                + String.join(", ", signature) + ") {\n  "
                + String.join(
                        "\n  ", lines.stream().map(l -> l.replace("\n", "\n  ")).toList()) + "\n}\n";
    }

    private static Expr typed(Expr.Literal literal, Parameter parameter) {
        return literal.value() == null ? new Expr.Literal(null, parameter.type()) : literal;
    }

    private static String kind(Type type) {
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> "character";
            case Type.Int _, Type.Num _, Type.Decimal _ -> "numeric";
            case Type.Bool _ -> "logical";
            case Type.Date _ -> "Date";
            case Type.Timestamp _ -> "POSIXct";
            case Type.ListOf _, Type.Mapping _ -> throw RWriter.notYetKnown();
        };
    }
}
