package fixshelf.profile;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.regex.Pattern;

/// Looks once at every distinct value of a column, and keeps what is needed to say what the column is.
final class ColumnTally {
    /// As many distinct values are kept whole, for what needs to hold one against another.
    static final int MOST_KEPT = 50_000;

    private static final int MOST_LAYOUTS = 2_000;
    private static final int COMMONEST = 200;
    private static final int LONGEST_WORD = 14;
    private static final int LONGEST_TOTAL = 40;

    private static final Set<String> NO_VALUE = Set.of(
            "n/a",
            "na",
            "n.a.",
            "#n/a",
            "nan",
            "null",
            "nil",
            "none",
            "-",
            "--",
            "---",
            "?",
            "??",
            "???",
            ".",
            "..",
            "unknown",
            "not known",
            "missing",
            "not given",
            "not applicable",
            "tbd",
            "tbc",
            "(blank)",
            "(none)",
            "#ref!",
            "#value!",
            "#div/0!",
            "#name?",
            "#num!",
            "\u2013",
            "\u2014");
    private static final Pattern TOTAL = Pattern.compile("(grand |sub[- ]?)?totals?\\b.*|(sum|overall)( of .*)?:?");
    private static final Pattern NO_DIGITS = Pattern.compile("[^0-9.,]+");
    private static final Pattern NO_LETTERS = Pattern.compile("[^\\p{L}]+");
    private static final Pattern THOUSANDS = Pattern.compile("[-+]?[0-9]{1,3}(,[0-9]{3})+");
    private static final Pattern RULER = Pattern.compile("([-=_*~.+\\u2500-\\u257F] ?){3,}");

    /// Days of a spreadsheet from 2000-01-01 to 2049-12-31, as numbers.
    private static final int FIRST_SERIAL = 36_526;

    private static final int LAST_SERIAL = 54_788;

    /// How many rows and which values have something in common.
    static final class Group {
        long rows;
        final List<String> values = new ArrayList<>();

        void add(String value, long n) {
            rows += n;
            if (values.size() < Finding.MOST_VALUES) {
                values.add(value);
            }
        }

        void addAll(Group other) {
            rows += other.rows;
            values.addAll(other.values);
        }

        String first() {
            return values.isEmpty() ? "" : values.getFirst();
        }
    }

    /// A value with how many rows hold it.
    record Counted(String value, long rows) {}

    final int column;
    final String name;
    final long rows;
    long filled;
    long empty;
    long blank;
    long present;
    long distinct;
    long digest;
    int shortest = Integer.MAX_VALUE;
    int longest;
    final Map<Oddity, Group> odd = new EnumMap<>(Oddity.class);
    final Map<String, Group> layouts = new LinkedHashMap<>();
    final Map<Layout.Kind, Group> kinds = new EnumMap<>(Layout.Kind.class);
    final Map<String, Group> units = new HashMap<>();
    final Map<Days.Order, Group> orders = new EnumMap<>(Days.Order.class);
    final Group noDay = new Group();
    final Group zeros = new Group();

    /// Numbers that a spreadsheet would show as days.
    final Group serials = new Group();

    /// Numbers with marks that are no unit.
    final Group signs = new Group();

    /// Values that more than one row holds.
    final Group repeated = new Group();
    final Spread spread = new Spread();
    final Spread days = new Spread();
    int wholeDigits;
    int places;
    boolean manyLayouts;
    Optional<List<Counted>> kept = Optional.of(new ArrayList<>());
    private final Map<String, Layout> known = Layout.cache();
    private final PriorityQueue<Counted> commonest = new PriorityQueue<>(
            Comparator.comparingLong(Counted::rows).thenComparing(Counted::value, Comparator.reverseOrder()));
    private String least = "";
    private String greatest = "";

    ColumnTally(int column, String name, long rows) {
        this.column = column;
        this.name = name;
        this.rows = rows;
    }

    /// A value that is there, and how many rows hold it.
    void add(String value, long n) {
        present += n;
        distinct++;
        digest += Digest.of(value) * n;
        int length = value.codePointCount(0, value.length());
        shortest = Math.min(shortest, length);
        longest = Math.max(longest, length);
        keep(value, n);
        if (n > 1) {
            repeated.add(value, n);
        }
        if (value.isEmpty()) {
            empty += n;
            return;
        }
        Set<Oddity> characters = Characters.odd(value);
        characters.forEach(o -> group(o).add(value, n));
        if (characters.contains(Oddity.BLANK_TEXTS)) {
            blank += n;
            return;
        }
        filled += n;
        if (least.isEmpty() || value.compareTo(least) < 0) {
            least = value;
        }
        if (greatest.isEmpty() || value.compareTo(greatest) > 0) {
            greatest = value;
        }
        read(characters.isEmpty() ? value : stripped(value), value, n);
    }

    private void read(String text, String value, long n) {
        char first = text.charAt(0);
        boolean digit = first >= '0' && first <= '9';
        if (!digit && saysNoValue(text)) {
            group(Oddity.WORDS_FOR_MISSING).add(value, n);
            return;
        }
        if (!digit && !Character.isLetter(first) && RULER.matcher(text).matches()) {
            group(Oddity.RULERS).add(value, n);
            return;
        }
        if ("gsto".indexOf(first | 32) >= 0 && text.length() <= LONGEST_TOTAL && isTotal(text)) {
            group(Oddity.TOTALS).add(value, n);
        }
        Layout layout = layout(text);
        kinds.computeIfAbsent(layout.kind(), _ -> new Group()).add(value, n);
        layouts(layout, value, n);
        switch (layout.kind()) {
            case WHOLE, DECIMAL -> number(text, value, n);
            case COMMA -> {
                String bare = bare(text);
                digits(bare);
                spread.add(number(bare), value, n);
            }
            case MARKED -> marked(layout, text, value, n);
            case DAY, TIME -> day(layout, text, value, n);
            case TEXT -> {
                if (first == '0' && text.length() > 3 && layout.isDigits()) {
                    zeros.add(value, n);
                }
            }
        }
    }

    /// Whether a text is one of the words by which people say that there is no value.
    static boolean saysNoValue(String text) {
        return text.length() <= LONGEST_WORD && NO_VALUE.contains(text.toLowerCase(Locale.ROOT));
    }

    private static boolean isTotal(String text) {
        return TOTAL.matcher(text.toLowerCase(Locale.ROOT)).matches();
    }

    private Layout layout(String text) {
        if (known.size() > MOST_LAYOUTS) {
            known.clear();
        }
        return Layout.of(text, known);
    }

    private void layouts(Layout layout, String value, long n) {
        if (manyLayouts) {
            return;
        }
        layouts.computeIfAbsent(layout.text(), _ -> new Group()).add(value, n);
        if (layouts.size() > MOST_LAYOUTS) {
            manyLayouts = true;
            layouts.clear();
        }
    }

    private void number(String text, String value, long n) {
        int sign = text.charAt(0) == '-' || text.charAt(0) == '+' ? 1 : 0;
        if (digits(text.substring(sign)) > 1 && text.charAt(sign) == '0') {
            zeros.add(value, n);
        }
        double read = number(text);
        spread.add(read, value, n);
        if (isSerial(read)) {
            serials.add(value, n);
        }
    }

    /// Whether a spreadsheet counts a day of these years so.
    static boolean isSerial(double number) {
        return number >= FIRST_SERIAL && number <= LAST_SERIAL;
    }

    /// Notes how many digits a number has before and after its point; gives those before.
    private int digits(String bare) {
        int point = bare.indexOf('.');
        int whole = point < 0 ? bare.length() : point;
        wholeDigits = Math.max(wholeDigits, whole);
        places = Math.max(places, point < 0 ? 0 : bare.length() - point - 1);
        return whole;
    }

    private void marked(Layout layout, String text, String value, long n) {
        digits(bare(NO_DIGITS.matcher(text).replaceAll("")));
        spread.add(marked(text), value, n);
        if (layout.unit()) {
            String unit = NO_LETTERS.matcher(text).replaceAll("");
            units.computeIfAbsent(unit, _ -> new Group()).add(value, n);
        } else {
            signs.add(value, n);
        }
    }

    private static double marked(String text) {
        boolean below = text.startsWith("(") || text.indexOf('-') >= 0 || text.indexOf('\u2212') >= 0;
        return (below ? -1 : 1) * number(bare(NO_DIGITS.matcher(text).replaceAll("")));
    }

    /// The number that a value reads as, whatever marks stand in it; not a number where it is none.
    static double amount(String value, Map<String, Layout> known) {
        String text = stripped(value);
        return switch (Layout.of(text, known).kind()) {
            case WHOLE, DECIMAL -> number(text);
            case COMMA, MARKED -> marked(text);
            case DAY, TIME, TEXT -> Double.NaN;
        };
    }

    /// The digits of a number with a point before its decimals, whichever sign stood there: the last of point and comma
    /// is that sign, unless it stands before groups of three digits.
    private static String bare(String text) {
        int point = text.lastIndexOf('.');
        int comma = text.lastIndexOf(',');
        if (comma > point) {
            boolean thousands = point < 0 && THOUSANDS.matcher(text).matches();
            return thousands ? text.replace(",", "") : text.replace(".", "").replace(',', '.');
        }
        boolean several = point >= 0 && text.indexOf('.') != point;
        return several ? text.replace(".", "").replace(",", "") : text.replace(",", "");
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    private void day(Layout layout, String text, String value, long n) {
        Optional<Days.Read> read = Days.read(text);
        if (read.isPresent()) {
            LocalDate day = read.get().day();
            orders.computeIfAbsent(read.get().order(), _ -> new Group()).add(value, n);
            days.add(day.toEpochDay(), value, n);
        } else if (!layout.unit()) {
            noDay.add(value, n);
        }
    }

    private void keep(String value, long n) {
        Counted last = commonest.peek();
        if (commonest.size() < COMMONEST || last == null || n >= last.rows()) {
            commonest.add(new Counted(value, n));
            if (commonest.size() > COMMONEST) {
                commonest.poll();
            }
        }
        kept.ifPresent(all -> {
            if (all.size() == MOST_KEPT) {
                kept = Optional.empty();
            } else {
                all.add(new Counted(value, n));
            }
        });
    }

    private Group group(Oddity oddity) {
        return odd.computeIfAbsent(oddity, _ -> new Group());
    }

    /// The commonest values, the most frequent first.
    List<Counted> commonest() {
        List<Counted> all = new ArrayList<>(commonest);
        all.sort(Comparator.comparingLong(Counted::rows).reversed().thenComparing(Counted::value));
        return all;
    }

    /// The first and last of the filled values, in the order of their characters.
    String least() {
        return least;
    }

    String greatest() {
        return greatest;
    }

    long rowsOf(Layout.Kind kind) {
        Group group = kinds.get(kind);
        return group == null ? 0 : group.rows;
    }

    /// Without the blanks at both ends, of whatever kind.
    static String stripped(String text) {
        int from = 0;
        int to = text.length();
        while (from < to && Characters.isBlank(text.codePointAt(from))) {
            from += Character.charCount(text.codePointAt(from));
        }
        while (to > from && Characters.isBlank(text.codePointBefore(to))) {
            to -= Character.charCount(text.codePointBefore(to));
        }
        return text.substring(from, to);
    }
}
