package fixshelf.plan;

import java.math.BigDecimal;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A query of an author with the values that its parameters have: they are never part of its text, but given to the
/// server beside it, so that none of them can be read as code.
///
/// @param sql the query, with `?` in the place of each value
/// @param values in their order: text, whole number, exact number, day, time or truth
/// @param names what the author calls them
public record QueryValues(String sql, List<Object> values, List<String> names) {
    private static final Pattern VALUE =
            Pattern.compile("\\{=([\\p{L}\\p{M}\\p{Nd}_]+):(text|integer|decimal|date|timestamp|boolean):([^{}]*)}");

    public QueryValues {
        values = List.copyOf(values);
        names = List.copyOf(names);
    }

    /// The query with a mark for each `{name}` whose value is known; others stay as they stand.
    public static String filled(String query, Map<String, ?> values) {
        return InBraces.NAME.matcher(query).replaceAll(m -> {
            Object value = values.get(m.group(1));
            return Matcher.quoteReplacement(value == null ? m.group() : mark(m.group(1), value));
        });
    }

    private static String mark(String name, Object value) {
        String type =
                switch (value) {
                    case Long _ -> "integer";
                    case BigDecimal _ -> "decimal";
                    case LocalDate _ -> "date";
                    case LocalDateTime _ -> "timestamp";
                    case Boolean _ -> "boolean";
                    default -> "text";
                };
        String said = value instanceof BigDecimal number ? number.toPlainString() : value.toString();
        return "{=" + name + ":" + type + ":" + URLEncoder.encode(said, StandardCharsets.UTF_8) + "}";
    }

    /// A query with its marks read.
    public static QueryValues of(String query) {
        List<Object> values = new ArrayList<>();
        List<String> names = new ArrayList<>();
        Matcher matcher = VALUE.matcher(query);
        String sql = matcher.replaceAll(m -> {
            String said = URLDecoder.decode(m.group(3), StandardCharsets.UTF_8);
            names.add(m.group(1));
            values.add(
                    switch (m.group(2)) {
                        case "integer" -> Long.valueOf(said);
                        case "decimal" -> new BigDecimal(said);
                        case "date" -> LocalDate.parse(said);
                        case "timestamp" -> LocalDateTime.parse(said);
                        case "boolean" -> Boolean.valueOf(said);
                        default -> said;
                    });
            return "?";
        });
        return new QueryValues(sql, values, names);
    }
}
