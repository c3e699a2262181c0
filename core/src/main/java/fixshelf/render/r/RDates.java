package fixshelf.render.r;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;

/// Days as R's `Date`, times as its `POSIXct` in universal time.
final class RDates {
    private static final int SECONDS_A_DAY = 86_400;

    private final RWriter writer;

    RDates(RWriter writer) {
        this.writer = writer;
    }

    R write(Expr.Call call) {
        List<Expr> a = call.arguments();
        String name = call.function().name();
        return switch (name) {
            case "to_date" -> R.call(".iso_date", given(a, 0, Type.TEXT));
            case "format_date" -> R.call(".date_text", given(a, 0, Type.DATE));
            case "year" -> part(a, "$year + 1900");
            case "month" -> part(a, "$mon + 1");
            case "day" -> part(a, "$mday");
            case "weekday" -> R.call("as.numeric", "(as.POSIXlt(" + given(a, 0, Type.DATE) + ")$wday + 6) %% 7 + 1");
            case "week" -> R.call("as.numeric", "format(" + given(a, 0, Type.DATE) + ", \"%V\")");
            case "add_days" -> R.call(".later", given(a, 0, Type.DATE), given(a, 1, Type.INTEGER));
            case "add_months" -> R.call(".months_later", given(a, 0, Type.DATE), given(a, 1, Type.INTEGER));
            case "days_between" -> R.call("as.numeric", difference(a, Type.DATE));
            case "to_timestamp" -> R.call(".iso_time", given(a, 0, Type.TEXT));
            case "format_timestamp" -> R.call(".time_text", given(a, 0, Type.TIMESTAMP));
            case "date_of" -> R.call("as.Date", count(a) + " %/% " + SECONDS_A_DAY, "origin = \"1970-01-01\"");
            case "at_midnight" -> R.call(".time", "as.numeric(" + given(a, 0, Type.DATE) + ") * " + SECONDS_A_DAY);
            case "hour" -> new R(count(a) + " %/% 3600 %% 24", R.IN);
            case "minute" -> new R(count(a) + " %/% 60 %% 60", R.IN);
            case "second" -> new R(count(a) + " %% 60", R.IN);
            case "add_seconds" -> R.call(".seconds_later", given(a, 0, Type.TIMESTAMP), given(a, 1, Type.INTEGER));
            case "microsecond" -> R.call(".micros", given(a, 0, Type.TIMESTAMP));
            case "add_microseconds" -> R.call(".micros_later", given(a, 0, Type.TIMESTAMP), given(a, 1, Type.INTEGER));
            case "seconds_between" -> R.call(".seconds_from", given(a, 0, Type.TIMESTAMP), given(a, 1, Type.TIMESTAMP));
            default -> throw RWriter.noForm(call);
        };
    }

    private String given(List<Expr> a, int index, Type type) {
        return writer.text(RWriter.typed(a.get(index), type));
    }

    private R part(List<Expr> a, String field) {
        return R.call("as.numeric", "as.POSIXlt(" + given(a, 0, Type.DATE) + ")" + field);
    }

    private String count(List<Expr> a) {
        return ".seconds(" + given(a, 0, Type.TIMESTAMP) + ")";
    }

    private String difference(List<Expr> a, Type type) {
        return R.infix(writer.r(RWriter.typed(a.get(1), type)), "-", writer.r(RWriter.typed(a.get(0), type)), R.PLUS)
                .text();
    }
}
