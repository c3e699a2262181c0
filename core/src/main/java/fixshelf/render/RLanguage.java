package fixshelf.render;

import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Parameter;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// R 4.2 and later with dplyr 1.0 and stringr 1.5. Whole numbers are exact up to 2^53; beyond that the code stops
/// instead of giving another number.
public final class RLanguage extends FrameLanguage {
    private static final Set<String> KEYWORDS = Set.of(
            "function", "if", "else", "for", "true", "false", "na", "library", "stop", "na_character_", "na_real_");

    /// Functions that R lacks, by name; code that calls one needs it before. Their names begin with a dot, as no fix's
    /// name does.
    private static final Map<String, String> HELPERS = helpers();

    private static Map<String, String> helpers() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put(".code_points", """
            # Texts in an order that goes by code point, whatever the locale.
            .code_points <- function(text) {
              vapply(text, function(t) {
                if (is.na(t)) NA_character_ else paste(sprintf("%06X", utf8ToInt(t)), collapse = "")
              }, "", USE.NAMES = FALSE)
            }
            """);
        all.put(".whole_number", """
            # The whole number that a text says, or NA. R's numbers are exact up to 2^53.
            .whole_number <- function(text) {
              shaped <- coalesce(str_detect(text, "^[\\\\t-\\\\r ]*[+-]?[0-9]{1,38}[\\\\t-\\\\r ]*\\\\z"), FALSE)
              digits <- str_remove(str_remove_all(text, "[^0-9]"), "^0+(?=[0-9])")
              largest <- case_when(str_detect(text, fixed("-")) ~ "9223372036854775808", TRUE ~ "9223372036854775807")
              fits <- str_length(digits) < 19 | (str_length(digits) == 19 & digits <= largest)
              value <- suppressWarnings(as.numeric(case_when(shaped & fits ~ text)))
              if (any(abs(value) > 2^53, na.rm = TRUE)) stop("R holds whole numbers exactly only up to 2^53")
              value
            }
            """);
        all.put(".within", """
            # A whole number, or NA beyond 64 bits. R's numbers are exact up to 2^53.
            .within <- function(number) {
              number <- case_when(abs(number) < 2^63 * (1 + 1e-9) ~ number)
              if (any(abs(number) > 2^53, na.rm = TRUE)) stop("R holds whole numbers exactly only up to 2^53")
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
        all.put(".later", """
            # A day so many days later, or NA outside the calendar.
            .later <- function(day, days) {
              found <- day + pmin(pmax(days, -4e6), 4e6)
              case_when(found >= as.Date("0001-01-01") & found <= as.Date("9999-12-31") ~ found)
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
        return error.contains("R holds whole numbers exactly") || error.contains("R keeps only 15 digits");
    }

    /// The packages and the helping functions that a piece of code needs.
    public static String prelude(String code) {
        StringBuilder out = new StringBuilder("library(dplyr)\nlibrary(stringr)\n");
        HELPERS.forEach((name, text) -> {
            if (code.contains(name + "(")) {
                out.append('\n').append(text);
            }
        });
        return out.toString();
    }

    /// How a parameter is called in code.
    public static String argumentName(Parameter parameter) {
        return RWriter.name(parameter.name());
    }

    /// How a fix is called in code.
    public static String functionName(Definition fix) {
        return RWriter.name(fix.name());
    }

    /// A value as it is written in code; a value that R cannot hold is refused with a [ProblemException].
    public static String literal(Expr.Literal literal) {
        return RWriter.literal(literal.value(), literal.type());
    }

    @Override
    String written(Expr expr) {
        return new RWriter(Set.of()).r(expr).text();
    }

    @Override
    String before(String code) {
        return prelude(code);
    }

    @Override
    String between() {
        return "\n";
    }

    @Override
    String function(Definition fix, String about) {
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
        String comment = about.isBlank() ? "" : "# " + about.replace("\n", " ") + "\n";
        return comment + RWriter.name(fix.name()) + " <- function(" + String.join(", ", signature) + ") {\n  "
                + String.join(
                        "\n  ", lines.stream().map(l -> l.replace("\n", "\n  ")).toList()) + "\n}\n";
    }

    private static Expr typed(Expr.Literal literal, Parameter parameter) {
        return literal.value() == null ? new Expr.Literal(null, parameter.type()) : literal;
    }

    private static String kind(Type type) {
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> "character";
            case Type.Int _, Type.Decimal _ -> "numeric";
            case Type.Bool _ -> "logical";
            case Type.Date _ -> "Date";
        };
    }
}
