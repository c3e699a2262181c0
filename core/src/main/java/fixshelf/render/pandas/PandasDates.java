package fixshelf.render.pandas;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;

/// Days and times as Python's own, in columns of objects: the ones of pandas end in the years 1677 and 2262.
final class PandasDates {
    private static final String TEXTS = "\"string\"";
    private static final String NUMBERS = "\"Int64\"";
    private static final String OBJECTS = "object";

    private final PandasWriter writer;

    PandasDates(PandasWriter writer) {
        this.writer = writer;
    }

    Py write(Expr.Call call) {
        List<Expr> a = call.arguments();
        String name = call.function().name();
        return switch (name) {
            case "to_date" -> mapped(a, "iso_date", OBJECTS);
            case "format_date" -> mapped(a, "date.isoformat", TEXTS);
            case "year", "month", "day", "hour", "minute", "second", "microsecond" ->
                mapped(a, "lambda d: d." + name, NUMBERS);
            case "weekday" -> mapped(a, "date.isoweekday", NUMBERS);
            case "week" -> mapped(a, "lambda d: d.isocalendar()[1]", NUMBERS);
            case "add_days" -> pair(a, "later(x, y)", OBJECTS);
            case "add_months" -> pair(a, "months_later(x, y)", OBJECTS);
            case "days_between" -> pair(a, "(y - x).days", NUMBERS);
            case "to_timestamp" -> mapped(a, "iso_time", OBJECTS);
            case "format_timestamp" -> mapped(a, "time_text", TEXTS);
            case "date_of" -> mapped(a, "datetime.date", OBJECTS);
            case "at_midnight" -> mapped(a, "lambda d: datetime(d.year, d.month, d.day)", OBJECTS);
            case "add_seconds" -> pair(a, "seconds_later(x, y)", OBJECTS);
            case "add_microseconds" -> pair(a, "micros_later(x, y)", OBJECTS);
            case "seconds_between" -> pair(a, "seconds_from(x, y)", NUMBERS);
            default -> throw PandasWriter.noForm(call);
        };
    }

    private Py mapped(List<Expr> a, String function, String dtype) {
        return writer.text(a, "map(" + function + ", na_action=\"ignore\").astype(" + dtype + ")");
    }

    private Py pair(List<Expr> a, String value, String dtype) {
        Expr second = a.get(1) instanceof Expr.Literal(Object v, Type _) && v == null
                ? new Expr.Literal(null, Type.INTEGER)
                : a.get(1);
        String columns =
                writer.series(a.get(0)).text() + ", " + writer.series(second).text();
        return writer.byRow(value, "x, y", columns, dtype);
    }
}
