package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Given;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Keys that differ by a letter: one that is another, too many, missing, or exchanged with its neighbour, and from
/// eight letters on one missing and one too many, or two others. Keys with digits are codes, in which one digit means
/// something else.
///
/// Each key is written without each of its letters in turn; two keys are close where two such texts are equal. So the
/// work grows with the number of keys, not with its square.
final class SmallChanges {
    private static final int MOST_KEYS = 5_000;
    private static final int SHORTEST = 4;
    private static final int LONGEST = 30;
    private static final int LONG = 8;

    private final Given given;

    SmallChanges(Given given) {
        this.given = given;
    }

    /// A key as it stands, and as it is compared.
    ///
    /// @param carried other fields that come along
    record Side(Relation table, Field key, Field folded, List<Field> carried) {}

    /// A key here, one there, what they differ in, and what came along from here.
    record Close(Relation table, Field here, Field there, Field why) {}

    /// The pairs of keys that differ by a letter.
    Close pairs(Side here, Side there) {
        Spelled mine = spelled(here);
        Spelled theirs = spelled(there);
        Field key = given.helper(there.key().name() + "_there", Type.TEXT);
        Field place = given.helper("place_there", Type.INTEGER);
        Field size = given.helper("size_there", Type.INTEGER);
        Field folded = given.helper("folded_there", Type.TEXT);
        Relation joined = new Relation.Join(
                mine.table(),
                theirs.table(),
                List.of(new Relation.Pair(mine.without(), theirs.without(), false)),
                Relation.Meeting.PAIRS,
                List.of(
                        new Relation.Taken(there.key(), key),
                        new Relation.Taken(theirs.place(), place),
                        new Relation.Taken(theirs.size(), size),
                        new Relation.Taken(there.folded(), folded)));
        Field changes = given.helper("changes", Type.INTEGER);
        Relation counted = new Relation.Compute(
                joined,
                List.of(new Computed(
                        changes,
                        changes(
                                new Letters(here.folded(), mine.place(), mine.size()),
                                new Letters(folded, place, size)))));
        Relation close = new Relation.Keep(counted, Formula.isKnown(changes.value()));
        List<Field> keys = new ArrayList<>(List.of(here.key(), key));
        keys.addAll(here.carried());
        List<Field> told = new ArrayList<>(keys);
        told.add(changes);
        Relation all = new Relation.Union(List.of(
                new Relation.Pick(close, new Shape(told)), twoOthers(here, there, HEAD), twoOthers(here, there, TAIL)));
        Field fewest = given.helper("fewest", Type.INTEGER);
        Relation each =
                new Relation.Group(all, keys, List.of(new Grouped(fewest, Aggregate.LEAST, Optional.of(changes))));
        Field why = given.helper("differ_in", Type.TEXT);
        Expr words = Formula.when(
                Formula.call("=", fewest.value(), number(1)),
                Expr.Literal.text("one letter"),
                Expr.Literal.text("two letters"));
        return new Close(new Relation.Compute(each, List.of(new Computed(why, words))), here.key(), key, why);
    }

    private static final boolean HEAD = true;
    private static final boolean TAIL = false;

    /// The pairs of long keys in which two letters are others, of those that begin, or end, with
    /// the same three: the key here, the one there, what came along, and the number two.
    private Relation twoOthers(Side here, Side there, boolean head) {
        Ended mine = ended(here, head);
        Ended theirs = ended(there, head);
        Field key = given.helper(there.key().name() + "_there", Type.TEXT);
        Field folded = given.helper("folded_there", Type.TEXT);
        Relation joined = new Relation.Join(
                mine.table(),
                theirs.table(),
                List.of(
                        new Relation.Pair(mine.size(), theirs.size(), false),
                        new Relation.Pair(mine.end(), theirs.end(), false)),
                Relation.Meeting.PAIRS,
                List.of(new Relation.Taken(there.key(), key), new Relation.Taken(there.folded(), folded)));
        Field differing = given.helper("differing", Type.INTEGER);
        Field two = given.helper("changes", Type.INTEGER);
        Relation counted = new Relation.Compute(
                joined, List.of(new Computed(differing, differing(here.folded(), folded, 1, LONGEST))));
        Relation close = new Relation.Compute(
                new Relation.Keep(counted, Formula.call("=", differing.value(), number(2))),
                List.of(new Computed(two, number(2))));
        List<Field> shown = new ArrayList<>(List.of(here.key(), key));
        shown.addAll(here.carried());
        shown.add(two);
        return new Relation.Pick(close, new Shape(shown));
    }

    /// How many of the letters from one place to another differ, put together in halves.
    private static Expr differing(Field a, Field b, int from, int to) {
        if (from == to) {
            Expr here = Formula.call("substr", a.value(), number(from), number(1));
            Expr there = Formula.call("substr", b.value(), number(from), number(1));
            return Formula.when(Formula.call("<>", here, there), number(1), number(0));
        }
        int half = (from + to) / 2;
        return Formula.call("+", differing(a, b, from, half), differing(a, b, half + 1, to));
    }

    /// @param end the first, or the last, three letters of a key
    private record Ended(Relation table, Field size, Field end) {}

    private Ended ended(Side side, boolean head) {
        Field size = given.helper("size", Type.INTEGER);
        Field end = given.helper("end", Type.TEXT);
        Relation some = some(side, size, LONG);
        Expr first = head ? number(1) : Formula.call("-", size.value(), number(2));
        List<Field> kept = new ArrayList<>(List.of(side.key(), side.folded(), size));
        kept.addAll(side.carried());
        Relation ended = new Relation.Compute(
                new Relation.Pick(some, new Shape(kept)),
                List.of(new Computed(end, Formula.call("substr", side.folded().value(), first, number(3)))));
        return new Ended(ended, size, end);
    }

    /// The first of the keys that have so many letters, and no digit.
    private Relation some(Side side, Field size, int shortest) {
        Expr key = side.folded().value();
        Field number = given.helper("key_number", Type.INTEGER);
        Relation sized = new Relation.Compute(side.table(), List.of(new Computed(size, Formula.call("length", key))));
        Relation fit = new Relation.Keep(
                sized,
                Formula.all(List.of(
                        Formula.call(">=", size.value(), number(shortest)),
                        Formula.call("<=", size.value(), number(LONGEST)),
                        Formula.not(Formula.call("regexp_like", key, Expr.Literal.text("[0-9]"))))));
        return new Relation.Keep(
                new Relation.Window(
                        fit, List.of(Windowed.number(number, Windowed.Kind.NUMBER)), List.of(), List.of(), false),
                Formula.call("<=", number.value(), number(MOST_KEYS)));
    }

    /// A table of keys without each of their letters in turn, and as they are.
    ///
    /// @param without the text
    /// @param place of the letter that is left out, from 1; one more than there are for the whole key
    /// @param size how many letters the key has
    private record Spelled(Relation table, Field without, Field place, Field size) {}

    private Spelled spelled(Side side) {
        Expr key = side.folded().value();
        Field size = given.helper("size", Type.INTEGER);
        Relation some = some(side, size, SHORTEST);
        List<Field> kept = new ArrayList<>(List.of(side.key(), side.folded(), size));
        kept.addAll(side.carried());
        // Each key beside each number of a letter.
        Field one = given.helper("one", Type.INTEGER);
        Field oneThere = given.helper("one_there", Type.INTEGER);
        Field place = given.helper("place", Type.INTEGER);
        Relation places = TypedRows.numbers(given, 1, LONGEST + 1);
        Relation each = new Relation.Join(
                new Relation.Compute(new Relation.Pick(some, new Shape(kept)), List.of(new Computed(one, number(1)))),
                new Relation.Compute(places, List.of(new Computed(oneThere, number(1)))),
                List.of(new Relation.Pair(one, oneThere, false)),
                Relation.Meeting.PAIRS,
                List.of(new Relation.Taken(places.shape().fields().getFirst(), place)));
        Relation there =
                new Relation.Keep(each, Formula.call("<=", place.value(), Formula.call("+", size.value(), number(1))));
        Field without = given.helper("without", Type.TEXT);
        Expr before = Formula.call("substr", key, number(1), Formula.call("-", place.value(), number(1)));
        Expr after = Formula.call("substr", key, Formula.call("+", place.value(), number(1)));
        Relation all = new Relation.Compute(there, List.of(new Computed(without, Formula.call("||", before, after))));
        return new Spelled(all, without, place, size);
    }

    /// A key, the place of the letter that it lacks, and how many letters it has.
    private record Letters(Field key, Field place, Field size) {
        Expr whole() {
            return Formula.call("=", place.value(), Formula.call("+", size.value(), number(1)));
        }

        Expr letter(Expr at) {
            return Formula.call("substr", key.value(), at, number(1));
        }
    }

    /// How many changes make one key of the other, where two texts without a letter of theirs are equal; missing for
    /// too many, and for none.
    private static Expr changes(Letters here, Letters there) {
        Expr same = Formula.call("=", here.key().value(), there.key().value());
        Expr sameSize = Formula.call("=", here.size().value(), there.size().value());
        Expr samePlace = Formula.call("=", here.place().value(), there.place().value());
        Expr exchanged = Formula.any(List.of(exchanged(here, there), exchanged(there, here)));
        Expr one = Formula.any(List.of(
                here.whole(),
                there.whole(),
                Formula.all(List.of(sameSize, samePlace)),
                Formula.all(List.of(sameSize, exchanged))));
        Expr two = Formula.all(List.of(sameSize, Formula.call(">=", here.size().value(), number(LONG))));
        return new Expr.Case(
                List.of(
                        new Expr.Branch(same, Formula.missing(Type.INTEGER)),
                        new Expr.Branch(one, number(1)),
                        new Expr.Branch(two, number(2))),
                Formula.missing(Type.INTEGER),
                Type.INTEGER);
    }

    /// Whether the letter that `a` lacks is the one that `b` lacks a place later.
    private static Expr exchanged(Letters a, Letters b) {
        return Formula.all(List.of(
                Formula.call("=", b.place().value(), Formula.call("+", a.place().value(), number(1))),
                Formula.call(
                        "=", a.letter(a.place().value()), b.letter(b.place().value()))));
    }

    private static Expr number(long value) {
        return Expr.Literal.integer(value);
    }

    /// The pairs of keys one of which has only the initial of its first word: `M. Ostler`, `Maud Ostler`.
    Close initials(Side here, Side there) {
        Worded mine = worded(here);
        Worded theirs = worded(there);
        Field key = given.helper(there.key().name() + "_there", Type.TEXT);
        Field words = given.helper("words_there", Type.TEXT);
        Relation joined = new Relation.Join(
                mine.table(),
                theirs.table(),
                List.of(new Relation.Pair(mine.initial(), theirs.initial(), false)),
                Relation.Meeting.PAIRS,
                List.of(new Relation.Taken(there.key(), key), new Relation.Taken(theirs.words(), words)));
        Expr startsWithOne = Expr.Literal.text("^\\p{L} ");
        Relation close = new Relation.Keep(
                joined,
                Formula.all(List.of(
                        Formula.not(Formula.call("=", mine.words().value(), words.value())),
                        Formula.any(List.of(
                                Formula.call("regexp_like", mine.words().value(), startsWithOne),
                                Formula.call("regexp_like", words.value(), startsWithOne))))));
        Field why = given.helper("differ_in", Type.TEXT);
        return new Close(
                new Relation.Compute(close, List.of(new Computed(why, Expr.Literal.text("an initial")))),
                here.key(),
                key,
                why);
    }

    /// @param words the words of a key, in small letters
    /// @param initial the same with only the initial of the first
    private record Worded(Relation table, Field words, Field initial) {}

    private Worded worded(Side side) {
        Field words = given.helper("words", Type.TEXT);
        Field initial = given.helper("initial", Type.TEXT);
        Expr plain = Formula.call("lower", side.key().value());
        Expr apart = Formula.call(
                "trim",
                Formula.call("regexp_replace", plain, Expr.Literal.text("[^\\p{L}\\p{N}]+"), Expr.Literal.text(" ")));
        Expr first = Formula.call(
                "regexp_replace",
                words.value(),
                Expr.Literal.text("^(\\p{L})[^ ]* (.*\\p{L}{3})"),
                Expr.Literal.text("\\1 \\2"));
        List<Field> kept = new ArrayList<>(List.of(side.key()));
        kept.addAll(side.carried());
        Relation told = new Relation.Compute(
                new Relation.Compute(
                        new Relation.Pick(side.table(), new Shape(kept)), List.of(new Computed(words, apart))),
                List.of(new Computed(initial, first)));
        Relation several = new Relation.Keep(told, Formula.call("regexp_like", words.value(), Expr.Literal.text(" ")));
        return new Worded(several, words, initial);
    }
}
