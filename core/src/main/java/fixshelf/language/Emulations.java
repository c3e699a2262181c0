package fixshelf.language;

import fixshelf.language.DateLayout.Field;
import fixshelf.language.DateLayout.Part;
import fixshelf.type.Type;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/// Calls that are written with simpler ones, as a tree, so that every language says them in its own way and none can
/// differ.
public final class Emulations {
    private static final LocalDate BEFORE_1900 = LocalDate.of(1899, 12, 31);
    private static final LocalDate BASE_1904 = LocalDate.of(1904, 1, 1);
    private static final long LAST_1900 = 2_958_465;
    private static final long LAST_1904 = 2_957_003;

    private Emulations() {}

    /// The call in simpler ones; empty for a call that a language says itself.
    public static Optional<Expr> of(Expr.Call call) {
        if (call.function() == DateFunctions.TO_DATE && call.arguments().size() > 1) {
            return layouts(call.arguments().subList(1, call.arguments().size()))
                    .map(all -> firstDay(call.argument(0), all));
        }
        if (call.function() == DateFunctions.FORMAT_DATE && call.arguments().size() > 1) {
            return layouts(call.arguments().subList(1, 2)).map(all -> written(call.argument(0), all.getFirst()));
        }
        if (call.function() == TextFunctions.TEXT_BETWEEN) {
            return Optional.of(between(call.argument(0), call.argument(1), call.argument(2)));
        }
        if (call.function() == DateFunctions.SERIAL_TO_DATE) {
            return fromSerial(call.arguments());
        }
        return Optional.empty();
    }

    private static Optional<List<DateLayout>> layouts(List<Expr> arguments) {
        List<DateLayout> layouts = new ArrayList<>();
        for (Expr argument : arguments) {
            if (!(argument instanceof Expr.Literal(String layout, Type _))) {
                return Optional.empty();
            }
            layouts.add(DateLayout.of(layout));
        }
        return Optional.of(layouts);
    }

    private static Expr call(FunctionDef function, Expr... arguments) {
        return new Expr.Call(function, List.of(arguments));
    }

    private static Expr text(String text) {
        return Expr.Literal.text(text);
    }

    private static Expr number(long number) {
        return Expr.Literal.integer(number);
    }

    private static Expr between(Expr text, Expr before, Expr after) {
        Expr start = call(TextFunctions.POSITION, text, before);
        Expr rest =
                call(TextFunctions.SUBSTRING, text, call(Arithmetic.PLUS, start, call(TextFunctions.LENGTH, before)));
        Expr end = call(TextFunctions.POSITION, rest, after);
        Expr found = call(
                Comparisons.AND,
                call(Comparisons.GREATER, start, number(0)),
                call(Comparisons.GREATER, end, number(0)));
        Expr inside = call(TextFunctions.LEFT, rest, call(Arithmetic.MINUS, end, number(1)));
        return new Expr.Case(List.of(new Expr.Branch(found, inside)), new Expr.Literal(null, Type.TEXT), Type.TEXT);
    }

    private static Expr firstDay(Expr text, List<DateLayout> layouts) {
        List<Expr> days = layouts.stream().map(l -> read(text, l)).toList();
        return days.size() == 1 ? days.getFirst() : new Expr.Call(NullFunctions.COALESCE, days);
    }

    /// One branch for each way in which fields of open length can come out.
    private static Expr read(Expr text, DateLayout layout) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (List<Integer> widths : widths(layout.parts(), 0)) {
            branches.add(new Expr.Branch(
                    call(PatternFunctions.REGEXP_LIKE, text, text(shape(layout.parts(), widths))),
                    call(DateFunctions.TO_DATE, isoText(text, layout.parts(), widths))));
        }
        return new Expr.Case(branches, new Expr.Literal(null, Type.DATE), Type.DATE);
    }

    private static List<List<Integer>> widths(List<Part> parts, int from) {
        if (from == parts.size()) {
            return List.of(List.of());
        }
        List<List<Integer>> all = new ArrayList<>();
        for (int width : widths(parts.get(from))) {
            for (List<Integer> rest : widths(parts, from + 1)) {
                List<Integer> one = new ArrayList<>(List.of(width));
                one.addAll(rest);
                all.add(one);
            }
        }
        return all;
    }

    private static List<Integer> widths(Part part) {
        return switch (part) {
            case Part.Plain(String plain) -> List.of(plain.codePointCount(0, plain.length()));
            case Part.Value(Field field) -> {
                List<Integer> widths = new ArrayList<>();
                for (int width = field.most; width >= field.fewest; width--) {
                    widths.add(width);
                }
                yield widths;
            }
        };
    }

    private static String shape(List<Part> parts, List<Integer> widths) {
        StringBuilder pattern = new StringBuilder("^");
        for (int i = 0; i < parts.size(); i++) {
            switch (parts.get(i)) {
                case Part.Plain(String plain) -> plain.codePoints().forEach(c -> escape(pattern, c));
                case Part.Value(Field field) ->
                    pattern.append(field.isDigits() ? "[0-9]" : "[A-Za-z]")
                            .append(widths.get(i) == 1 ? "" : "{" + widths.get(i) + "}");
            }
        }
        return pattern.append('$').toString();
    }

    private static void escape(StringBuilder pattern, int c) {
        pattern.append("\\.[]{}()*+?^$|".indexOf(c) >= 0 ? "\\" : "").appendCodePoint(c);
    }

    private static Expr isoText(Expr text, List<Part> parts, List<Integer> widths) {
        Expr year = text("");
        Expr month = text("");
        Expr day = text("");
        int at = 1;
        for (int i = 0; i < parts.size(); i++) {
            Expr piece = call(TextFunctions.SUBSTRING, text, number(at), number(widths.get(i)));
            if (parts.get(i) instanceof Part.Value(Field field)) {
                Expr digits = widths.get(i) == 1 ? call(TextFunctions.CONCAT, text("0"), piece) : piece;
                if (field == Field.YEAR) {
                    year = piece;
                } else if (field.isDay()) {
                    day = digits;
                } else {
                    month = field.isDigits() ? digits : monthNumber(piece, field == Field.MONTH_SHORT);
                }
            }
            at += widths.get(i);
        }
        return new Expr.Call(TextFunctions.CONCAT_CALL, List.of(year, text("-"), month, text("-"), day));
    }

    private static Expr monthNumber(Expr name, boolean brief) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (int m = 0; m < 12; m++) {
            String month = DateLayout.MONTHS.get(m);
            List<Expr> choices = new ArrayList<>(List.of(name));
            DateLayout.writings(brief ? month.substring(0, 3) : month).forEach(w -> choices.add(text(w)));
            String number = (m < 9 ? "0" : "") + (m + 1);
            branches.add(new Expr.Branch(new Expr.Call(Comparisons.IN, choices), text(number)));
        }
        return new Expr.Case(branches, new Expr.Literal(null, Type.TEXT), Type.TEXT);
    }

    private static Expr written(Expr date, DateLayout layout) {
        Expr iso = call(DateFunctions.FORMAT_DATE, date);
        List<Expr> pieces = new ArrayList<>();
        StringBuilder plain = new StringBuilder();
        for (Part part : layout.parts()) {
            switch (part) {
                case Part.Plain(String text) -> plain.append(text);
                case Part.Value(Field field) -> {
                    if (!plain.isEmpty()) {
                        pieces.add(text(plain.toString()));
                        plain.setLength(0);
                    }
                    pieces.add(written(date, iso, field));
                }
            }
        }
        if (!plain.isEmpty()) {
            pieces.add(text(plain.toString()));
        }
        boolean fields = layout.parts().stream().anyMatch(p -> p instanceof Part.Value);
        if (!fields) {
            Expr known = call(Comparisons.NOT, call(NullFunctions.IS_NULL, date));
            return new Expr.Case(
                    List.of(new Expr.Branch(known, pieces.getFirst())), new Expr.Literal(null, Type.TEXT), Type.TEXT);
        }
        return pieces.size() == 1 ? pieces.getFirst() : new Expr.Call(TextFunctions.CONCAT_CALL, pieces);
    }

    private static Expr written(Expr date, Expr iso, Field field) {
        return switch (field) {
            case YEAR -> call(TextFunctions.SUBSTRING, iso, number(1), number(4));
            case MONTH_TWO -> call(TextFunctions.SUBSTRING, iso, number(6), number(2));
            case DAY_TWO -> call(TextFunctions.SUBSTRING, iso, number(9), number(2));
            case MONTH -> call(Conversions.TO_TEXT, call(DateFunctions.MONTH, date));
            case DAY -> call(Conversions.TO_TEXT, call(DateFunctions.DAY, date));
            case MONTH_SHORT -> named(call(DateFunctions.MONTH, date), DateLayout.MONTHS, n -> n.substring(0, 3));
            case MONTH_NAME -> named(call(DateFunctions.MONTH, date), DateLayout.MONTHS, n -> n);
            case WEEKDAY_SHORT -> named(call(DateFunctions.WEEKDAY, date), DateLayout.WEEKDAYS, n -> n.substring(0, 3));
            case WEEKDAY_NAME -> named(call(DateFunctions.WEEKDAY, date), DateLayout.WEEKDAYS, n -> n);
        };
    }

    private static Expr named(Expr number, List<String> names, UnaryOperator<String> shown) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            branches.add(
                    new Expr.Branch(call(Comparisons.EQUAL, number, number(i + 1)), text(shown.apply(names.get(i)))));
        }
        return new Expr.Case(branches, new Expr.Literal(null, Type.TEXT), Type.TEXT);
    }

    private static Optional<Expr> fromSerial(List<Expr> arguments) {
        Expr serial = arguments.getFirst();
        if (arguments.size() > 1 && !(arguments.get(1) instanceof Expr.Literal(Long _, Type _))) {
            return Optional.empty();
        }
        boolean later =
                arguments.size() > 1 && arguments.get(1) instanceof Expr.Literal(Long base, Type _) && base == 1904;
        List<Expr.Branch> branches = later
                ? List.of(counted(serial, 0, LAST_1904, BASE_1904))
                : List.of(
                        counted(serial, 1, 59, BEFORE_1900), counted(serial, 61, LAST_1900, BEFORE_1900.minusDays(1)));
        return Optional.of(new Expr.Case(branches, new Expr.Literal(null, Type.DATE), Type.DATE));
    }

    private static Expr.Branch counted(Expr serial, long first, long last, LocalDate from) {
        Expr within = call(
                Comparisons.AND,
                call(Comparisons.AT_LEAST, serial, number(first)),
                call(Comparisons.AT_MOST, serial, number(last)));
        return new Expr.Branch(within, call(DateFunctions.ADD_DAYS, new Expr.Literal(from, Type.DATE), serial));
    }
}
