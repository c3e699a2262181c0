package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.number;
import static fixshelf.language.catalogue.Entry.numeric;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// Floating-point numbers: into them, and the operations that differ for them. Every result is the one of IEEE 754, or
/// null where a language would stop or give infinity.
public final class FloatFunctions {
    private FloatFunctions() {}

    /// The largest and the smallest size of a number that is read or written; the smallest does not hold for 0.
    public static final double MOST = 1e300;

    public static final double LEAST = 1e-300;

    /// The same for both sides of an operation, so that its result is far from where languages stop.
    public static final double MOST_OPERAND = 1e150;

    public static final double LEAST_OPERAND = 1e-150;

    static final FunctionDef TO_NUMBER = define(Group.CONVERSION, "to_number", text("text"))
            .gives(Result.NUMBER)
            .about("""
                The floating-point number nearest to what the text says: white space at the ends, a sign, digits with
                at most one point, and an exponent such as `e-3` with up to 3 digits. Null beyond 1e300 in size, for
                more than 100 characters, and for anything else, such as `NaN`, `Infinity` or `12,5`; 0 when closer to
                it than 1e-300.\
                """)
            .example("to_number(' 1.5e-3 ')", "1.5e-3")
            .example("to_number('-42')", "-4.2e1")
            .example("to_number('.5')", "5e-1")
            .example("to_number('NaN')", "NULL")
            .example("to_number('1e999')", "NULL")
            .done();

    public static final FunctionDef APPROXIMATE = define(Group.CONVERSION, "approximate", numeric("number"))
            .gives(Result.NUMBER)
            .about("The floating-point number that is nearest to a whole or exact one; about 16 digits are kept.")
            .example("approximate(3)", "3e0")
            .example("approximate(-0.25)", "-2.5e-1")
            .example("approximate(2.675)", "2.675e0")
            .done();

    public static final FunctionDef QUOTIENT = define(Group.NUMBER, "/", number("dividend"), number("divisor"))
            .gives(Result.NUMBER)
            .about("""
                The quotient of floating-point numbers. Null for a divisor of 0, and where a side is beyond 1e150 in
                size or, without being 0, closer to 0 than 1e-150. For other numbers there are `div` and `divide`.\
                """)
            .example("1e0 / 8", "1.25e-1")
            .example("1e0 / 0", "NULL")
            .example("2e200 / 2", "NULL")
            .done();

    /// Text that is known to say a number as a language reads it, without any look at its size.
    public static final FunctionDef READ = raw("read number", text("text"));

    public static final FunctionDef PLUS = raw("number +", number("left"), number("right"));
    public static final FunctionDef MINUS = raw("number -", number("left"), number("right"));
    public static final FunctionDef TIMES = raw("number *", number("left"), number("right"));
    public static final FunctionDef OVER = raw("number /", number("left"), number("right"));

    /// What the others are written with; nobody can call it.
    private static FunctionDef raw(String name, FunctionDef.Slot... slots) {
        return define(Group.NUMBER, name, slots).gives(Result.NUMBER).done();
    }

    static final List<FunctionDef> ALL = List.of(TO_NUMBER, APPROXIMATE, QUOTIENT);
}
