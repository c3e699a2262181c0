package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.condition;
import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.same;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;
import java.util.Optional;

/// Comparison and three-valued logic. Text compares by code point.
public final class Comparisons {
    private Comparisons() {}

    /// `left IS DISTINCT FROM right`.
    public static Expr distinct(Expr left, Expr right) {
        return new Expr.Call(DISTINCT, List.of(left, right));
    }

    public static final FunctionDef EQUAL =
            comparison("=", "Whether both are the same; exact for text.", "'a' = 'A'", "FALSE");
    public static final FunctionDef NOT_EQUAL = comparison("<>", "Whether they differ.", "'a' <> 'a '", "TRUE");
    public static final FunctionDef LESS = comparison("<", "Whether left comes before right.", "'B' < 'a'", "TRUE");
    public static final FunctionDef AT_MOST = comparison("<=", "Whether left is not after right.", "2 <= 2", "TRUE");
    public static final FunctionDef GREATER = comparison(">", "Whether left comes after right.", "'é' > 'z'", "TRUE");
    public static final FunctionDef AT_LEAST = comparison(">=", "Whether left is not before right.", "1 >= 2", "FALSE");

    public static final FunctionDef DISTINCT = define(Group.COMPARISON, "IS DISTINCT FROM", same("left"), same("right"))
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("Whether they differ, where two nulls do not; never null.")
            .example("NULL IS DISTINCT FROM 'a'", "TRUE")
            .example("NULL IS NOT DISTINCT FROM NULL", "TRUE")
            .example("'a' IS DISTINCT FROM 'a'", "FALSE")
            .done();

    public static final FunctionDef IN = define(Group.COMPARISON, "IN", same("value"), same("choice"))
            .repeatsLast()
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("Whether the value equals one of the choices; null when the value is null. Null choices are"
                    + " ignored.")
            .example("'b' IN ('a', 'b')", "TRUE")
            .example("NULL IN ('a')", "NULL")
            .example("'c' NOT IN ('a', NULL)", "TRUE")
            .done();

    public static final FunctionDef LIKE = define(
                    Group.COMPARISON, "LIKE", text("text"), fixedText("pattern"), optional(fixedText("escape")))
            .gives(Result.BOOLEAN)
            .about("""
                Whether the whole text matches `pattern`, in which `%` is any text, also none, and `_` any one
                character, line breaks included. The sign after ESCAPE makes the next one literal; without it a
                backslash is an ordinary character.\
                """)
            .example("'kettle' LIKE 'k%e'", "TRUE")
            .example("'5%' LIKE '5!%' ESCAPE '!'", "TRUE")
            .example("'Kettle' LIKE 'k%'", "FALSE")
            .example("U&'a\\000Ab' LIKE 'a_b'", "TRUE")
            .done();

    public static final FunctionDef AND = define(Group.COMPARISON, "AND", condition("left"), condition("right"))
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("True when both are; false when either is false; otherwise null.")
            .example("TRUE AND NULL", "NULL")
            .example("FALSE AND NULL", "FALSE")
            .example("TRUE AND TRUE", "TRUE")
            .done();

    public static final FunctionDef OR = define(Group.COMPARISON, "OR", condition("left"), condition("right"))
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("True when either is; false when both are false; otherwise null.")
            .example("FALSE OR NULL", "NULL")
            .example("TRUE OR NULL", "TRUE")
            .example("FALSE OR FALSE", "FALSE")
            .done();

    public static final FunctionDef NOT = define(Group.COMPARISON, "NOT", condition("condition"))
            .gives(Result.BOOLEAN)
            .about("The opposite; null stays null.")
            .example("NOT TRUE", "FALSE")
            .example("NOT NULL", "NULL")
            .example("NOT ('a' = 'b')", "TRUE")
            .done();

    static final FunctionDef GREATEST = extreme("greatest", "The largest of several values", "3", "'b'");
    static final FunctionDef LEAST = extreme("least", "The smallest of several values", "1", "'a'");

    private static FunctionDef extreme(String name, String about, String number, String text) {
        return define(Group.COMPARISON, name, same("first"), same("next"))
                .repeatsLast()
                .gives(Result.SAME)
                .about(about + "; text by code point. Null when any is null.")
                .example(name + "(1, 3, 2)", number)
                .example(name + "('b', 'a')", text)
                .example(name + "(1, NULL)", "NULL")
                .done();
    }

    /// The value that is `sign` all others, as conditions, which every language has; null where one of them is.
    public static Optional<Expr> emulated(Expr.Call call) {
        if (call.function() != GREATEST && call.function() != LEAST) {
            return Optional.empty();
        }
        FunctionDef sign = call.function() == GREATEST ? AT_LEAST : AT_MOST;
        List<Expr.Branch> branches = call.arguments().stream()
                .map(value -> new Expr.Branch(
                        call.arguments().stream()
                                .filter(other -> other != value)
                                .<Expr>map(other -> new Expr.Call(sign, List.of(value, other)))
                                .reduce((x, y) -> new Expr.Call(AND, List.of(x, y)))
                                .orElse(new Expr.Call(sign, List.of(value, value))),
                        value))
                .toList();
        return Optional.of(new Expr.Case(branches, new Expr.Literal(null, call.type()), call.type()));
    }

    private static FunctionDef comparison(String sign, String about, String call, String result) {
        return define(Group.COMPARISON, sign, same("left"), same("right"))
                .gives(Result.BOOLEAN)
                .about(about + " Null when either is null.")
                .example(call, result)
                .example("NULL " + sign + " 'a'", "NULL")
                .example(
                        "'' " + sign + " ''",
                        "=<=>=".contains(sign) && !sign.equals("<") && !sign.equals(">") ? "TRUE" : "FALSE")
                .done();
    }

    static final List<FunctionDef> ALL = List.of(
            EQUAL, NOT_EQUAL, LESS, AT_MOST, GREATER, AT_LEAST, DISTINCT, IN, LIKE, AND, OR, NOT, GREATEST, LEAST);
}
