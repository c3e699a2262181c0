package fixshelf.standin;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.profile.Layout;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.IntPredicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/// A made-up value for each value of some datasets: the same for the same value wherever it stands, another one for
/// another, and none that was there before, as long as its layout leaves a choice.
///
/// All values are [#learn]ed first; then they are [#settle]d; then each can be asked for. What may be kept stays as it
/// is, as do empty texts, blanks, zeros and texts of marks alone. Of a day the year is another, by
/// a multiple of four, so that it stays as possible, as doubtful and as far from others as it was;
/// of a number the first digit and the number of digits stay. Where a layout leaves no choice (one
/// digit, numbers without a gap), values change places.
final class Substitutes {
    /// More values than these are not told apart.
    static final int MOST_VALUES = 5_000_000;

    private static final int TRIES = 24;
    /// From this try on, a letter may stand for any other, and the first digit may be another.
    private static final int FREE_TRIES = 12;
    /// Shorter numbers are moved to the nearest that is free.
    private static final int SHORT_NUMBER = 2;
    private static final int MOST_LEAPS = 3;
    private static final int THIS_CENTURY = 2000;

    private static final Pattern YEAR = Pattern.compile("(?<![0-9])[0-9]{4}(?![0-9])");
    private static final Pattern SHORT_YEAR = Pattern.compile("[0-9]{2}(?=($|[T, ]))");
    private static final Pattern CLOCK = Pattern.compile("[0-9]{1,2}:[0-9]{2}(:[0-9]{2})?");

    private final Signs signs;
    private final Random order;
    private final Set<String> keptWords;
    private final Set<String> keptValues;
    private final Map<String, Layout> layouts = Layout.cache();
    private final Set<String> texts = new HashSet<>();
    private final Set<String> numbers = new HashSet<>();
    /// How long the digits of a text are wherever it stands, with the zeros in front.
    private final Map<String, List<Integer>> widths = new HashMap<>();
    /// What values that are not the first choice for themselves became.
    private final Map<String, String> settled = new HashMap<>();
    private int leaps;
    private int leastYear = Integer.MAX_VALUE;
    private int greatestYear;
    private long movedPlaces;
    private long stay;

    /// What a value is, and so what stays of it.
    private enum Kind {
        TEXT,
        NUMBER,
        DAY,
        CLOCK,
        NOTHING
    }

    /// @param secret what no other stand-in is made with
    /// @param kept words and values that may stay
    /// @param writable whether a letter can be written in the encoding of the files
    Substitutes(byte[] secret, Set<String> kept, IntPredicate writable) {
        this.signs = new Signs(secret, writable);
        this.order = signs.order();
        this.keptWords = new HashSet<>();
        this.keptValues = new HashSet<>();
        for (String word : kept) {
            Runs runs = Runs.of(word);
            keptValues.add(runs.key());
            if (runs.parts().size() == 1) {
                keptWords.add(runs.key());
            }
        }
    }

    private Kind kind(String value) {
        if (CLOCK.matcher(value).matches()) {
            return Kind.CLOCK;
        }
        Kind kind =
                switch (Layout.of(value, layouts).kind()) {
                    case DAY, TIME -> Kind.DAY;
                    case WHOLE, DECIMAL, COMMA -> Kind.NUMBER;
                    case MARKED, TEXT ->
                        value.codePoints().noneMatch(Character::isLetter)
                                        && value.codePoints().anyMatch(Character::isDigit)
                                ? Kind.NUMBER
                                : Kind.TEXT;
                };
        return runs(value, kind).parts().isEmpty() ? Kind.NOTHING : kind;
    }

    private static Runs runs(String value, Kind kind) {
        return kind == Kind.NUMBER ? Runs.ofNumber(value) : Runs.of(value);
    }

    /// Takes a value that there is; more than can be told apart are a problem.
    void learn(String value) {
        Kind kind = kind(value);
        switch (kind) {
            case TEXT -> text(value);
            case NUMBER -> numbers.add(runs(value, kind).key());
            case DAY -> {
                year(value).ifPresent(y -> {
                    leastYear = Math.min(leastYear, y);
                    greatestYear = Math.max(greatestYear, y);
                });
            }
            case CLOCK, NOTHING -> {}
        }
        if (texts.size() + numbers.size() > MOST_VALUES) {
            throw new ProblemException(Problem.about(
                    Code.TOO_MANY_VALUES,
                    "stand-in",
                    String.format("There are more than %,d different values.", MOST_VALUES),
                    "Make a stand-in of the first rows only (--rows)."));
        }
    }

    private void text(String value) {
        String key = Runs.of(value).key();
        texts.add(key);
        List<Integer> now = Runs.widths(value);
        if (!now.isEmpty()) {
            widths.merge(key, now, (a, b) -> IntStream.range(0, a.size())
                    .mapToObj(i -> Math.min(a.get(i), b.get(i)))
                    .toList());
        }
    }

    /// Finds a substitute for each value that was learned.
    void settle() {
        settle(texts, Kind.TEXT);
        settle(numbers, Kind.NUMBER);
        if (greatestYear > 0) {
            int apart = (greatestYear - leastYear) / 4 + 1;
            leaps = apart <= MOST_LEAPS ? apart : 1 + order.nextInt(MOST_LEAPS);
        }
    }

    private void settle(Set<String> keys, Kind kind) {
        Set<String> used = new HashSet<>();
        Map<String, List<String>> without = new TreeMap<>();
        // Sorted, so that a secret says all; short ones first, as they have the least choice.
        List<String> sorted = new ArrayList<>(keys);
        Collections.sort(sorted);
        for (String key : sorted) {
            Runs runs = Runs.ofKey(key);
            if (isKept(runs)) {
                used.add(key);
                continue;
            }
            Optional<String> found = kind == Kind.NUMBER && key.length() <= SHORT_NUMBER
                    ? near(key, keys, used)
                    : made(runs, keys, used, kind);
            if (found.isPresent()) {
                used.add(found.get());
                if (!found.get().equals(first(runs, kind))) {
                    settled.put(key, found.get());
                }
            } else {
                without.computeIfAbsent(group(runs, kind), _ -> new ArrayList<>())
                        .add(key);
            }
        }
        without.values().forEach(group -> exchange(group, kind, used));
    }

    private boolean isKept(Runs runs) {
        return keptValues.contains(runs.key()) || runs.parts().stream().allMatch(keptWords::contains);
    }

    private String first(Runs runs, Kind kind) {
        return made(runs, 0, kind);
    }

    private Optional<String> made(Runs runs, Set<String> there, Set<String> used, Kind kind) {
        for (int attempt = 0; attempt < TRIES; attempt++) {
            String made = made(runs, attempt, kind);
            if (!there.contains(made) && !used.contains(made)) {
                return Optional.of(made);
            }
        }
        return Optional.empty();
    }

    private String made(Runs runs, int attempt, Kind kind) {
        List<String> parts = new ArrayList<>();
        // A word is the same word everywhere; what would not be told apart is made of the whole value.
        String whole = attempt == 0 ? "" : runs.key() + '\u0002' + attempt;
        Iterator<Integer> wide = attempt < FREE_TRIES || kind == Kind.NUMBER
                ? Collections.emptyIterator()
                : widths.getOrDefault(runs.key(), List.of()).iterator();
        boolean numbered = runs.parts().stream().anyMatch(p -> Character.isDigit(p.charAt(0)));
        for (String part : runs.parts()) {
            if (keptWords.contains(part)) {
                parts.add(part);
            } else if (Character.isDigit(part.charAt(0))) {
                // Zeros in front leave room for other numbers.
                String digits = wide.hasNext() ? part + "0".repeat(wide.next() - part.length()) : part;
                parts.add(signs.digits(digits, whole, attempt < FREE_TRIES, kind == Kind.NUMBER));
            } else {
                // Where there are digits, they make the difference.
                parts.add(numbered ? signs.letters(part, "", true) : signs.letters(part, whole, attempt < FREE_TRIES));
            }
        }
        return new Runs(parts).key();
    }

    /// The nearest number of as many digits that is not there.
    private Optional<String> near(String key, Set<String> there, Set<String> used) {
        int number = Integer.parseInt(key);
        int most = key.length() == 1 ? 10 : 100;
        int side = order.nextBoolean() ? 1 : -1;
        for (int far = 1; far < most; far++) {
            for (int now : new int[] {number + side * far, number - side * far}) {
                String made = String.valueOf(now);
                if (now >= most / 10 && now < most && now % 10 > 0 && !there.contains(made) && !used.contains(made)) {
                    return Optional.of(made);
                }
            }
        }
        return Optional.empty();
    }

    private static String group(Runs runs, Kind kind) {
        String shape = runs.shape();
        return kind == Kind.NUMBER && shape.length() > SHORT_NUMBER
                ? shape + runs.key().charAt(0)
                : shape;
    }

    /// Values for which nothing is free take each other's place; short numbers that of their neighbour.
    private void exchange(List<String> group, Kind kind, Set<String> used) {
        if (kind == Kind.TEXT || group.getFirst().length() > SHORT_NUMBER) {
            Collections.shuffle(group, order);
        }
        int size = group.size();
        if (size == 1) {
            stay++;
            used.add(group.getFirst());
            settled.put(group.getFirst(), group.getFirst());
            return;
        }
        movedPlaces += size;
        int alone = size % 2 == 0 ? size : size - 3;
        for (int i = 0; i < alone; i += 2) {
            settled.put(group.get(i), group.get(i + 1));
            settled.put(group.get(i + 1), group.get(i));
        }
        if (alone < size) {
            for (int i = 0; i < 3; i++) {
                settled.put(group.get(alone + i), group.get(alone + (i + 1) % 3));
            }
        }
    }

    /// The made-up value for a value that was learned.
    String of(String value) {
        Kind kind = kind(value);
        return switch (kind) {
            case NOTHING -> value;
            case DAY -> day(value);
            case CLOCK -> signs.clock(value);
            case TEXT, NUMBER -> {
                Runs runs = runs(value, kind);
                if (isKept(runs)) {
                    yield value;
                }
                String made = settled.getOrDefault(runs.key(), first(runs, kind));
                yield Runs.written(value, Runs.ofKey(made), kind == Kind.NUMBER);
            }
        };
    }

    /// Values for which nothing else was free, so that they took each other's place.
    long movedPlaces() {
        return movedPlaces;
    }

    /// Values that are the only ones of their layout, and stay as they are.
    long stay() {
        return stay;
    }

    /// By how many years days were moved into the past.
    int years() {
        return 4 * leaps;
    }

    private static Optional<Integer> year(String day) {
        Matcher whole = YEAR.matcher(day);
        if (whole.find()) {
            return Optional.of(Integer.parseInt(whole.group())).filter(y -> y > 0);
        }
        Matcher cut = SHORT_YEAR.matcher(day);
        return cut.find() ? Optional.of(THIS_CENTURY + Integer.parseInt(cut.group())) : Optional.empty();
    }

    private String day(String day) {
        Matcher whole = YEAR.matcher(day);
        if (whole.find()) {
            return moved(day, whole, 10_000);
        }
        Matcher cut = SHORT_YEAR.matcher(day);
        return cut.find() ? moved(day, cut, 100) : day;
    }

    private String moved(String day, Matcher year, int most) {
        int then = Integer.parseInt(year.group());
        if (then == 0 && most > 100) {
            return day;
        }
        int now = then - years() > 0 ? then - years() : then + years();
        boolean leap = then % 4 == 0 && now % 100 == 0 && now % 400 != 0 && most > 100;
        int kept = leap ? then + years() : now;
        String digits = String.format("%0" + year.group().length() + "d", kept % most);
        return day.substring(0, year.start()) + digits + day.substring(year.end());
    }
}
