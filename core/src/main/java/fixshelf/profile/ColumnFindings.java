package fixshelf.profile;

import fixshelf.profile.ColumnTally.Counted;
import fixshelf.profile.ColumnTally.Group;
import fixshelf.type.Visible;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// What is said of a column, once all its values were looked at: what it reads as, and what is odd.
final class ColumnFindings {
    /// A column reads as numbers or days where at least that share of its values do.
    private static final double MOST = 0.8;

    private static final double NEARLY_ALL = 0.9;
    private static final int FEWEST = 20;
    private static final int MOST_UNITS = 3;
    private static final int FEWEST_MIXED = 3;

    private static final LocalDate SERIAL_BASE = LocalDate.of(1899, 12, 30);

    private final ColumnTally tally;
    private final List<Finding> findings = new ArrayList<>();

    /// Rows with a value that says something.
    private final long known;

    private final List<KnownList> lists;

    private ColumnFindings(ColumnTally tally, List<KnownList> lists) {
        this.tally = tally;
        this.lists = lists;
        this.known = tally.filled - rows(Oddity.WORDS_FOR_MISSING) - rows(Oddity.RULERS);
    }

    static ColumnLook of(ColumnTally tally, List<Long> filledByPlace, List<KnownList> lists) {
        ColumnFindings findings = new ColumnFindings(tally, lists);
        String readsAs = findings.look();
        boolean number = readsAs.startsWith("integer") || readsAs.startsWith("decimal");
        boolean day = readsAs.startsWith("date") || readsAs.startsWith("timestamp");
        Spread spread = number ? tally.spread : day ? tally.days : new Spread();
        return new ColumnLook(
                tally.column,
                tally.name,
                readsAs,
                tally.rows,
                tally.filled,
                tally.rows - tally.present,
                0,
                tally.empty,
                tally.blank,
                tally.distinct,
                tally.distinct == 0 ? 0 : tally.shortest,
                tally.longest,
                spread.isEmpty() ? tally.least() : ColumnTally.stripped(spread.leastText()),
                spread.isEmpty() ? tally.greatest() : ColumnTally.stripped(spread.greatestText()),
                tally.commonest().stream()
                        .map(c -> new ColumnLook.Common(c.value(), c.rows()))
                        .toList(),
                spread.bins(),
                filledByPlace,
                tally.digest,
                findings.findings);
    }

    private long rows(Oddity oddity) {
        Group group = tally.odd.get(oddity);
        return group == null ? 0 : group.rows;
    }

    private void add(Oddity oddity, Group group, String detail) {
        if (group.rows > 0) {
            findings.add(Finding.of(oddity, tally.column, group.rows, detail, group.values));
        }
    }

    private String look() {
        if (tally.filled == 0) {
            findings.add(Finding.of(Oddity.NEVER_FILLED, tally.column, tally.rows, "", List.of()));
            return "text";
        }
        for (Oddity oddity : Oddity.values()) {
            if (oddity.isOfCharacters() && tally.odd.containsKey(oddity)) {
                add(oddity, tally.odd.get(oddity), "");
            }
        }
        if (tally.distinct == 1 && tally.filled == tally.rows && tally.rows > 1) {
            findings.add(Finding.of(
                    Oddity.CONSTANT,
                    tally.column,
                    tally.rows,
                    "",
                    List.of(tally.commonest().getFirst().value())));
        }
        Group words = tally.odd.get(Oddity.WORDS_FOR_MISSING);
        if (words != null && known > 0) {
            add(Oddity.WORDS_FOR_MISSING, words, listed(words));
        }
        Group rulers = tally.odd.get(Oddity.RULERS);
        if (rulers != null) {
            add(Oddity.RULERS, rulers, quoted(rulers.first()));
        }
        Group totals = tally.odd.get(Oddity.TOTALS);
        if (totals != null && totals.rows < known * (1 - MOST)) {
            add(Oddity.TOTALS, totals, quoted(totals.first()));
        }
        return known == 0 ? "text" : readsAs();
    }

    private String readsAs() {
        long whole = tally.rowsOf(Layout.Kind.WHOLE);
        long plain = whole + tally.rowsOf(Layout.Kind.DECIMAL);
        long marked = tally.rowsOf(Layout.Kind.MARKED);
        boolean units = tally.units.size() <= MOST_UNITS;
        long numbers = plain
                + tally.rowsOf(Layout.Kind.COMMA)
                + (units
                        ? marked
                        : marked
                                - tally.units.values().stream()
                                        .mapToLong(g -> g.rows)
                                        .sum());
        long days = tally.rowsOf(Layout.Kind.DAY);
        long times = tally.rowsOf(Layout.Kind.TIME);
        if (tally.zeros.rows > 0 && numbers + tally.zeros.rows >= known * MOST) {
            add(Oddity.LEADING_ZEROS, tally.zeros, quoted(tally.zeros.first()));
            return "text";
        }
        if (numbers >= known * MOST) {
            return number();
        }
        if (days + times >= known * MOST && (days + times - tally.noDay.rows) * 2 > days + times) {
            return day(times > days);
        }
        return text();
    }

    private String number() {
        Group comma = tally.kinds.get(Layout.Kind.COMMA);
        if (comma != null) {
            String first = ColumnTally.stripped(comma.first());
            add(Oddity.COMMA_IN_NUMBERS, comma, first + " would read as " + first.substring(0, first.indexOf(',')));
        }
        Group marked = tally.kinds.get(Layout.Kind.MARKED);
        if (marked != null) {
            if (tally.units.size() <= MOST_UNITS) {
                tally.units.forEach((unit, group) -> add(Oddity.UNITS, group, unit));
            }
            add(Oddity.MARKS_IN_NUMBERS, tally.signs, quoted(tally.signs.first()));
        }
        Group none = of(List.of(Layout.Kind.TEXT, Layout.Kind.DAY, Layout.Kind.TIME));
        // Letters of very many kinds behind digits are no units.
        if (tally.units.size() > MOST_UNITS) {
            tally.units.values().forEach(none::addAll);
        }
        add(Oddity.NO_NUMBER, none, quoted(none.first()));
        boolean serial = ColumnTally.isSerial(tally.spread.least())
                && ColumnTally.isSerial(tally.spread.greatest())
                && tally.distinct > 1
                && marked == null
                && comma == null;
        if (serial) {
            findings.add(Finding.of(
                    Oddity.SERIAL_DAYS,
                    tally.column,
                    tally.filled,
                    serial(tally.spread.least()) + " … " + serial(tally.spread.greatest()),
                    tally.commonest().stream().map(Counted::value).toList()));
        }
        if (tally.places == 0) {
            return "integer";
        }
        return "decimal(" + Math.max(tally.wholeDigits + tally.places, tally.places + 1) + "," + tally.places + ")";
    }

    private static String serial(double number) {
        return SERIAL_BASE.plusDays((long) Math.floor(number)).toString();
    }

    private String day(boolean time) {
        Map<String, Group> layouts = new HashMap<>();
        tally.layouts.forEach((layout, group) -> {
            Layout.Kind kind = Layout.of(layout, Layout.cache()).kind();
            if (kind == Layout.Kind.DAY || kind == Layout.Kind.TIME) {
                Group all = layouts.computeIfAbsent(
                        layout.replaceAll("(?<!9)99?(?!9)", "9").replaceFirst("(:9:9)\\.9+", "$1"), _ -> new Group());
                all.rows += group.rows;
                all.values.addAll(group.values);
            }
        });
        Group both = tally.orders.get(Days.Order.MONTH_FIRST);
        boolean mixed = both != null && tally.orders.containsKey(Days.Order.DAY_FIRST);
        List<Group> sorted = layouts.values().stream()
                .sorted(Comparator.comparingLong((Group g) -> g.rows).reversed())
                .toList();
        sorted.stream().skip(1).forEach(g -> add(Oddity.LAYOUTS, g, g.first()));
        if (mixed) {
            boolean less = both.rows <= tally.orders.get(Days.Order.DAY_FIRST).rows;
            Group odd = less ? both : tally.orders.get(Days.Order.DAY_FIRST);
            add(Oddity.LAYOUTS, odd, odd.first() + (less ? ", month first" : ", day first"));
        }
        if (tally.serials.rows > 0) {
            String first = tally.serials.first();
            double number = ColumnTally.amount(first, Layout.cache());
            add(Oddity.SERIALS, tally.serials, ColumnTally.stripped(first) + " would be " + serial(number));
        }
        Group none = new Group();
        none.addAll(tally.noDay);
        none.addAll(of(NO_DAYS));
        none.rows -= tally.serials.rows;
        none.values.removeIf(v -> ColumnTally.isSerial(ColumnTally.amount(v, Layout.cache())));
        add(Oddity.NO_DAY, none, quoted(none.first()));
        int count = sorted.size() + (mixed ? 1 : 0);
        String kind = time ? "timestamp" : "date";
        return count > 1 ? kind + ", " + count + " layouts" : kind;
    }

    private static final List<Layout.Kind> NUMBERS =
            List.of(Layout.Kind.WHOLE, Layout.Kind.DECIMAL, Layout.Kind.COMMA, Layout.Kind.MARKED);

    private static final List<Layout.Kind> DAYS = List.of(Layout.Kind.DAY, Layout.Kind.TIME);
    private static final List<Layout.Kind> TEXTS = List.of(Layout.Kind.TEXT);

    private static final List<Layout.Kind> NO_DAYS =
            Stream.of(TEXTS, NUMBERS).flatMap(List::stream).toList();

    /// The values of some kinds.
    private Group of(List<Layout.Kind> kinds) {
        Group all = new Group();
        kinds.forEach(k -> Optional.ofNullable(tally.kinds.get(k)).ifPresent(all::addAll));
        return all;
    }

    /// Where most values are numbers or days, and too many are something else for either.
    private void mixed() {
        Map<String, Group> groups = new LinkedHashMap<>();
        groups.put("number", of(NUMBERS));
        groups.put("day", of(DAYS));
        groups.put("text", of(TEXTS));
        if (known < FEWEST_MIXED || tally.units.size() > MOST_UNITS || groups.get("text").rows * 2 >= known) {
            return;
        }
        Group most = groups.values().stream()
                .max(Comparator.comparingLong(g -> g.rows))
                .orElseThrow();
        Group others = new Group();
        groups.values().stream().filter(g -> g != most).forEach(others::addAll);
        String counted = groups.entrySet().stream()
                .filter(e -> e.getValue().rows > 0)
                .map(e -> String.format("%,d ", e.getValue().rows) + e.getKey() + (e.getValue().rows == 1 ? "" : "s"))
                .collect(Collectors.joining(", "));
        add(Oddity.MIXED, others, counted);
    }

    private String text() {
        Optional<Character> separator = tally.kept.flatMap(all -> Lists.separator(all, known));
        if (separator.isPresent()) {
            Group empty = new Group();
            tally.kept.orElseThrow().stream()
                    .filter(c -> Lists.hasEmptyPart(c.value(), separator.get()))
                    .forEach(c -> empty.add(c.value(), c.rows()));
            add(Oddity.EMPTY_PARTS, empty, String.valueOf(separator.get()));
            return "list by " + separator.get();
        }
        if (isTruth()) {
            return "boolean";
        }
        mixed();
        unlike();
        tally.kept.ifPresent(all -> {
            Spellings spellings = Spellings.of(all);
            add(Oddity.SPELLINGS, spellings.otherwise(), spellings.example());
            add(Oddity.NEAR, spellings.near(), spellings.nearExample());
            notOnList(all);
        });
        return "text";
    }

    /// Where most rows hold a value of a list of the shelf, those that do not are worth looking at.
    private void notOnList(List<Counted> values) {
        Optional<Group> fewest = Optional.empty();
        String name = "";
        for (KnownList list : lists) {
            Group others = new Group();
            long on = 0;
            for (Counted counted : values) {
                String value = ColumnTally.stripped(counted.value());
                if (list.values().contains(value)) {
                    on += counted.rows();
                } else if (!value.isEmpty() && !ColumnTally.saysNoValue(value)) {
                    others.add(counted.value(), counted.rows());
                }
            }
            boolean fits = on >= known * MOST && others.rows > 0;
            if (fits && (fewest.isEmpty() || others.rows < fewest.get().rows)) {
                fewest = Optional.of(others);
                name = list.name();
            }
        }
        if (fewest.isPresent()) {
            add(Oddity.NOT_ON_LIST, fewest.get(), name);
        }
    }

    private boolean isTruth() {
        return tally.distinct <= 4
                && tally.commonest().stream()
                        .map(c -> ColumnTally.stripped(c.value()).toLowerCase(Locale.ROOT))
                        .filter(v -> !v.isEmpty())
                        .allMatch(v -> v.equals("true") || v.equals("false"));
    }

    /// Codes are laid out alike; the few that are not are worth looking at.
    private void unlike() {
        if (tally.manyLayouts || known < FEWEST) {
            return;
        }
        Optional<Map.Entry<String, Group>> most =
                tally.layouts.entrySet().stream().max(Comparator.comparingLong(e -> e.getValue().rows));
        if (most.isEmpty()
                || most.get().getKey().indexOf('9') < 0
                || most.get().getValue().rows == known
                || most.get().getValue().rows < known * NEARLY_ALL) {
            return;
        }
        Group others = new Group();
        tally.layouts.forEach((layout, group) -> {
            if (!layout.equals(most.get().getKey())) {
                others.rows += group.rows;
                group.values.stream()
                        .limit(Finding.MOST_VALUES - others.values.size())
                        .forEach(others.values::add);
            }
        });
        add(Oddity.UNLIKE, others, most.get().getValue().first());
    }

    /// Whether rows with an equal value would be worth looking at: nearly every row has a value of its own.
    static Optional<Finding> repeats(ColumnTally tally) {
        boolean key = tally.filled >= FEWEST
                && tally.distinct < tally.present
                && tally.distinct >= tally.present * NEARLY_ALL
                && tally.filled >= tally.rows * NEARLY_ALL
                && tally.longest <= 40;
        return key
                ? Optional.of(Finding.of(
                        Oddity.REPEATS, tally.column, tally.present - tally.distinct, "", tally.repeated.values))
                : Optional.empty();
    }

    /// Whether every row has a value of its own.
    static boolean isKey(ColumnTally tally) {
        return tally.rows >= 2 && tally.distinct == tally.rows && tally.filled == tally.rows;
    }

    private static String quoted(String value) {
        String marked = Visible.markOddities(value);
        return "'" + (marked.length() > 24 ? marked.substring(0, 23) + "…" : marked) + "'";
    }

    private static String listed(Group group) {
        List<String> words = group.values.stream()
                .map(v -> ColumnTally.stripped(v))
                .distinct()
                .sorted()
                .toList();
        String some = String.join(" or ", words.stream().limit(3).toList());
        return words.size() > 3 ? some + " and so on" : some;
    }
}
