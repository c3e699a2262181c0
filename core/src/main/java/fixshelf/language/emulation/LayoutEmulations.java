package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.text;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.CalendarNames;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.Conversions;
import fixshelf.language.catalogue.DateFunctions;
import fixshelf.language.catalogue.DateLayout;
import fixshelf.language.catalogue.DateLayout.Field;
import fixshelf.language.catalogue.DateLayout.Part;
import fixshelf.language.catalogue.NullFunctions;
import fixshelf.language.catalogue.PatternFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.catalogue.TimeFunctions;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Days and times read and written in a layout, with those in the standard's order.
final class LayoutEmulations {
    /// The length of a time without a fraction, as `2026-02-07 10:12:00`.
    private static final int SECONDS = 19;

    private LayoutEmulations() {}

    static final Set<FunctionDef> FUNCTIONS = Set.of(
            DateFunctions.TO_DATE,
            DateFunctions.FORMAT_DATE,
            TimeFunctions.TO_TIMESTAMP,
            TimeFunctions.FORMAT_TIMESTAMP);

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        if (a.size() < 2) {
            return Optional.empty();
        }
        boolean reading = call.function() == DateFunctions.TO_DATE || call.function() == TimeFunctions.TO_TIMESTAMP;
        return layouts(a.subList(1, a.size()))
                .map(all -> reading ? first(a.getFirst(), all, call.type()) : written(a.getFirst(), all.getFirst()));
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

    private static Expr first(Expr text, List<DateLayout> layouts, Type type) {
        List<Expr> days = layouts.stream().map(l -> read(text, l, type)).toList();
        return days.size() == 1 ? days.getFirst() : new Expr.Call(NullFunctions.COALESCE, days);
    }

    /// One branch for each way in which fields of open length can come out.
    private static Expr read(Expr text, DateLayout layout, Type type) {
        boolean timed = type instanceof Type.Timestamp;
        FunctionDef reading = timed ? TimeFunctions.TO_TIMESTAMP : DateFunctions.TO_DATE;
        if (layout.parts().equals(DateLayout.of("yyyy-MM-dd").parts()) && !timed) {
            return call(reading, text);
        }
        if (layout.parts().equals(DateLayout.of("yyyy-MM-dd HH:mm:ss").parts())) {
            // Without a layout, a fraction is read too.
            return when(
                    call(Comparisons.EQUAL, call(TextFunctions.LENGTH, text), number(SECONDS)), call(reading, text));
        }
        List<Expr.Branch> branches = new ArrayList<>();
        for (List<Integer> widths : widths(layout, 0)) {
            branches.add(
                    new Expr.Branch(shaped(text, layout, widths), call(reading, isoText(text, layout, widths, type))));
        }
        return new Expr.Case(branches, new Expr.Literal(null, type), type);
    }

    private static List<List<Integer>> widths(DateLayout layout, int from) {
        if (from == layout.parts().size()) {
            return List.of(List.of());
        }
        List<List<Integer>> all = new ArrayList<>();
        for (int width : widths(layout.parts().get(from), layout.names())) {
            for (List<Integer> rest : widths(layout, from + 1)) {
                List<Integer> one = new ArrayList<>(List.of(width));
                one.addAll(rest);
                all.add(one);
            }
        }
        return all;
    }

    private static List<Integer> widths(Part part, CalendarNames names) {
        return switch (part) {
            case Part.Plain(String plain) -> List.of(plain.codePointCount(0, plain.length()));
            case Part.Value(Field field)
            when !field.isDigits() ->
                names.of(field).stream()
                        .map(String::length)
                        .distinct()
                        .sorted(Comparator.reverseOrder())
                        .toList();
            case Part.Value(Field field) -> {
                List<Integer> widths = new ArrayList<>();
                for (int width = field.most; width >= field.fewest; width--) {
                    widths.add(width);
                }
                yield widths;
            }
        };
    }

    /// Whether a text has that length and the signs of the layout in their places. Digits and names need no look:
    /// the standard's order is read strictly. Signs that could be taken for a field are looked at with a pattern.
    private static Expr shaped(Expr text, DateLayout layout, List<Integer> widths) {
        boolean clear = layout.parts().stream()
                .allMatch(p -> !(p instanceof Part.Plain(String plain))
                        || plain.codePoints().noneMatch(Character::isLetterOrDigit));
        if (!clear) {
            return call(PatternFunctions.REGEXP_LIKE, text, text(shape(layout, widths)));
        }
        int length = widths.stream().mapToInt(w -> w).sum();
        Expr all = call(Comparisons.EQUAL, call(TextFunctions.LENGTH, text), number(length));
        int at = 1;
        for (int i = 0; i < widths.size(); i++) {
            if (layout.parts().get(i) instanceof Part.Plain(String plain)) {
                Expr sign = call(TextFunctions.SUBSTRING, text, number(at), number(widths.get(i)));
                all = call(Comparisons.AND, all, call(Comparisons.EQUAL, sign, text(plain)));
            }
            at += widths.get(i);
        }
        return all;
    }

    private static String shape(DateLayout layout, List<Integer> widths) {
        StringBuilder pattern = new StringBuilder("^");
        for (int i = 0; i < widths.size(); i++) {
            switch (layout.parts().get(i)) {
                case Part.Plain(String plain) -> plain.codePoints().forEach(c -> escape(pattern, c));
                case Part.Value(Field field) -> {
                    pattern.append(
                            field.isDigits() ? "[0-9]" : letters(layout.names().of(field)));
                    pattern.append(widths.get(i) == 1 ? "" : "{" + widths.get(i) + "}");
                }
            }
        }
        return pattern.append('$').toString();
    }

    /// A set of the letters of A to Z and of the others that occur in these names.
    private static String letters(List<String> names) {
        StringBuilder set = new StringBuilder("[A-Za-z");
        names.stream()
                .flatMap(n -> CalendarNames.writings(n).stream())
                .flatMapToInt(String::codePoints)
                .filter(c -> c > 127)
                .distinct()
                .sorted()
                .forEach(set::appendCodePoint);
        return set.append(']').toString();
    }

    private static void escape(StringBuilder pattern, int c) {
        pattern.append("\\.[]{}()*+?^$|".indexOf(c) >= 0 ? "\\" : "").appendCodePoint(c);
    }

    private static Expr isoText(Expr text, DateLayout layout, List<Integer> widths, Type type) {
        Map<Character, Expr> said = new HashMap<>();
        int at = 1;
        for (int i = 0; i < widths.size(); i++) {
            Expr piece = call(TextFunctions.SUBSTRING, text, number(at), number(widths.get(i)));
            if (layout.parts().get(i) instanceof Part.Value(Field field)) {
                Expr digits = widths.get(i) == 1 && !field.isFraction()
                        ? call(TextFunctions.CONCAT, text("0"), piece)
                        : piece;
                boolean named = field.isMonth() && !field.isDigits();
                said.put(field.kind(), named ? monthNumber(piece, layout.names().of(field), widths.get(i)) : digits);
            }
            at += widths.get(i);
        }
        List<Expr> iso = new ArrayList<>(List.of(said.get('y'), text("-"), said.get('M'), text("-"), said.get('d')));
        if (type instanceof Type.Timestamp) {
            for (char kind : new char[] {'H', 'm', 's'}) {
                iso.add(text(kind == 'H' ? " " : ":"));
                iso.add(said.getOrDefault(kind, text("00")));
            }
            if (said.containsKey('S')) {
                iso.add(text("."));
                iso.add(said.get('S'));
            }
        }
        return new Expr.Call(TextFunctions.CONCAT_CALL, iso);
    }

    /// The number of a month whose name has that length; null for another word.
    private static Expr monthNumber(Expr name, List<String> months, int length) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (int m = 1; m <= months.size(); m++) {
            if (months.get(m - 1).length() == length) {
                List<Expr> choices = new ArrayList<>(List.of(name));
                CalendarNames.writings(months.get(m - 1)).forEach(w -> choices.add(text(w)));
                branches.add(new Expr.Branch(new Expr.Call(Comparisons.IN, choices), text((m < 10 ? "0" : "") + m)));
            }
        }
        return new Expr.Case(branches, new Expr.Literal(null, Type.TEXT), Type.TEXT);
    }

    private static Expr written(Expr time, DateLayout layout) {
        boolean timed = time.type() instanceof Type.Timestamp;
        Expr iso = call(timed ? TimeFunctions.FORMAT_TIMESTAMP : DateFunctions.FORMAT_DATE, time);
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
                    pieces.add(written(time, iso, field, layout.names().of(field)));
                }
            }
        }
        if (!plain.isEmpty()) {
            pieces.add(text(plain.toString()));
        }
        boolean fields = layout.parts().stream().anyMatch(p -> p instanceof Part.Value);
        if (!fields) {
            Expr known = call(Comparisons.NOT, call(NullFunctions.IS_NULL, time));
            return new Expr.Case(
                    List.of(new Expr.Branch(known, pieces.getFirst())), new Expr.Literal(null, Type.TEXT), Type.TEXT);
        }
        return pieces.size() == 1 ? pieces.getFirst() : new Expr.Call(TextFunctions.CONCAT_CALL, pieces);
    }

    private static Expr written(Expr time, Expr iso, Field field, List<String> names) {
        Expr date = time.type() instanceof Type.Timestamp ? call(TimeFunctions.DATE_OF, time) : time;
        return switch (field) {
            case YEAR -> call(TextFunctions.SUBSTRING, iso, number(1), number(4));
            case MONTH_TWO -> call(TextFunctions.SUBSTRING, iso, number(6), number(2));
            case DAY_TWO -> call(TextFunctions.SUBSTRING, iso, number(9), number(2));
            case MONTH -> call(Conversions.TO_TEXT, call(DateFunctions.MONTH, date));
            case DAY -> call(Conversions.TO_TEXT, call(DateFunctions.DAY, date));
            case MONTH_SHORT, MONTH_NAME -> named(call(DateFunctions.MONTH, date), names);
            case WEEKDAY_SHORT, WEEKDAY_NAME -> named(call(DateFunctions.WEEKDAY, date), names);
            case HOUR_TWO -> call(TextFunctions.SUBSTRING, iso, number(12), number(2));
            case MINUTE_TWO -> call(TextFunctions.SUBSTRING, iso, number(15), number(2));
            case SECOND_TWO -> call(TextFunctions.SUBSTRING, iso, number(18), number(2));
            case HOUR -> call(Conversions.TO_TEXT, call(TimeFunctions.HOUR, time));
            case TENTHS, HUNDREDTHS, MILLIS, FOUR_PLACES, FIVE_PLACES, MICROS ->
                call(TextFunctions.SUBSTRING, micros(iso), number(1), number(field.most));
        };
    }

    /// The six digits of the fraction of a second in a text of the standard's order, which leaves out needless zeros.
    private static Expr micros(Expr iso) {
        return call(
                TextFunctions.CONCAT,
                call(TextFunctions.SUBSTRING, iso, number(SECONDS + 2), number(6)),
                text("000000"));
    }

    private static Expr named(Expr number, List<String> names) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            branches.add(new Expr.Branch(call(Comparisons.EQUAL, number, number(i + 1)), text(names.get(i))));
        }
        return new Expr.Case(branches, new Expr.Literal(null, Type.TEXT), Type.TEXT);
    }
}
