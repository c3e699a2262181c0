package fixshelf.standin;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;

/// The runs of letters and of digits of a text, without what is only the way it is written: capitals, accents, zeros in
/// front. Texts with the same runs are spellings of one value.
///
/// @param parts letters in small ones, or digits from the first that is not zero
record Runs(List<String> parts) {
    private static final char BETWEEN = '\u0001';
    private static final Pattern DIGITS = Pattern.compile("\\p{Nd}+");

    Runs {
        parts = List.copyOf(parts);
    }

    /// The runs of a text as they stand.
    static Runs of(String text) {
        Reading reading = new Reading(false);
        text.codePoints().forEach(reading::take);
        return reading.runs();
    }

    /// All digits of a number as one run, without zeros in front and behind: 12, 1,200 and 0.12 are written alike.
    static Runs ofNumber(String text) {
        Reading reading = new Reading(true);
        text.codePoints().filter(Character::isDigit).forEach(reading::take);
        String digits = reading.runs().key().replaceFirst("0+$", "");
        return new Runs(digits.isEmpty() ? List.of() : List.of(digits));
    }

    /// How many digits stand in each run of digits of a text, zeros in front too.
    static List<Integer> widths(String text) {
        return DIGITS.matcher(text)
                .results()
                .map(MatchResult::group)
                .filter(d -> d.codePoints().anyMatch(c -> Character.digit(c, 10) > 0))
                .map(d -> d.codePointCount(0, d.length()))
                .toList();
    }

    /// What tells it from other runs.
    String key() {
        return String.join(String.valueOf(BETWEEN), parts);
    }

    static Runs ofKey(String key) {
        return new Runs(key.isEmpty() ? List.of() : List.of(key.split(String.valueOf(BETWEEN))));
    }

    /// Letters as `a`, digits as `9`.
    String shape() {
        StringBuilder out = new StringBuilder();
        key().codePoints()
                .forEach(c -> out.append(c == BETWEEN ? BETWEEN : Character.isDigit(c) ? '9' : c < 128 ? 'a' : 'b'));
        return out.toString();
    }

    /// Takes a text apart, sign by sign.
    private static final class Reading {
        private final boolean number;
        private final List<String> parts = new ArrayList<>();
        private final StringBuilder run = new StringBuilder();
        private boolean digits;
        private boolean open;

        Reading(boolean number) {
            this.number = number;
        }

        void take(int c) {
            if (Character.isLetter(c)) {
                begin(false);
                run.appendCodePoint(base(c));
            } else if (Character.isDigit(c)) {
                begin(true);
                if (!run.isEmpty() || Character.digit(c, 10) > 0) {
                    run.append((char) ('0' + Character.digit(c, 10)));
                }
            } else if (!isMark(c)) {
                end();
            }
        }

        private void begin(boolean ofDigits) {
            if (!number && open && digits != ofDigits) {
                end();
            }
            open = true;
            digits = ofDigits;
        }

        private void end() {
            if (!run.isEmpty()) {
                parts.add(run.toString());
                run.setLength(0);
            }
            open = false;
        }

        Runs runs() {
            end();
            return new Runs(parts);
        }
    }

    /// Whether a sign stands upon the one before it.
    static boolean isMark(int c) {
        int type = Character.getType(c);
        return type == Character.NON_SPACING_MARK || type == Character.COMBINING_SPACING_MARK;
    }

    /// A letter in small and without its accent.
    static int base(int letter) {
        String apart = Normalizer.normalize(Character.toString(letter), Normalizer.Form.NFD);
        int first = apart.codePointAt(0);
        boolean onlyMarks = apart.codePoints().skip(1).allMatch(Runs::isMark);
        int bare = onlyMarks ? first : letter;
        String small = Character.toString(bare).toLowerCase(Locale.ROOT);
        return small.codePointCount(0, small.length()) == 1 ? small.codePointAt(0) : bare;
    }

    /// The text with other letters and digits in its places: a run of `other` for each of its own.
    ///
    /// @param text what has these runs
    /// @param number whether it was read as a number
    static String written(String text, Runs other, boolean number) {
        Writing writing = new Writing(other, number);
        text.codePoints().forEach(writing::put);
        return writing.text();
    }

    /// Puts other runs into the places of a text, sign by sign. A run of digits is as long as it was, with zeros in
    /// front where the other one is shorter; zeros in front of a number and behind its last place stay.
    private static final class Writing {
        private final List<String> other;
        private final boolean number;
        private final StringBuilder out = new StringBuilder();
        private final StringBuilder digits = new StringBuilder();
        private int run;
        private int place;
        private boolean inLetters;
        private boolean digitSeen;

        Writing(Runs other, boolean number) {
            this.other = other.parts();
            this.number = number;
        }

        void put(int c) {
            boolean digit = Character.isDigit(c);
            boolean letter = Character.isLetter(c);
            if (number) {
                out.appendCodePoint(digit ? ofNumber(c) : c);
                return;
            }
            if (!digit) {
                endDigits();
            }
            if (inLetters && !letter && !isMark(c)) {
                inLetters = false;
                run++;
            }
            if (digit) {
                digits.appendCodePoint(c);
            } else if (letter) {
                if (!inLetters) {
                    inLetters = true;
                    place = 0;
                }
                int to = other.get(run).codePointAt(place);
                place += Character.charCount(to);
                letter(c, to);
            } else {
                out.appendCodePoint(c);
            }
        }

        private int ofNumber(int c) {
            boolean front = !digitSeen && Character.digit(c, 10) == 0;
            digitSeen |= !front;
            boolean behind = other.isEmpty() || place == other.getFirst().length();
            return front || behind ? c : zero(c) + other.getFirst().charAt(place++) - '0';
        }

        private static int zero(int digit) {
            return digit - Character.digit(digit, 10);
        }

        private void endDigits() {
            if (digits.isEmpty()) {
                return;
            }
            int[] were = digits.codePoints().toArray();
            digits.setLength(0);
            if (Arrays.stream(were).allMatch(c -> Character.digit(c, 10) == 0)) {
                Arrays.stream(were).forEach(out::appendCodePoint);
                return;
            }
            String to = other.get(run++);
            for (int i = 0; i < were.length; i++) {
                int at = i - were.length + to.length();
                out.appendCodePoint(zero(were[i]) + (at < 0 ? 0 : to.charAt(at) - '0'));
            }
        }

        private void letter(int c, int to) {
            String apart = Normalizer.normalize(Character.toString(c), Normalizer.Form.NFD);
            boolean marked = apart.codePointCount(0, apart.length()) > 1
                    && apart.codePoints().skip(1).allMatch(Runs::isMark);
            String plain = Character.toString(Character.isUpperCase(c) ? Character.toUpperCase(to) : to);
            if (!marked) {
                out.append(plain);
                return;
            }
            String marks = apart.substring(Character.charCount(apart.codePointAt(0)));
            out.append(Normalizer.normalize(plain + marks, Normalizer.Form.NFC));
        }

        String text() {
            endDigits();
            return out.toString();
        }
    }
}
