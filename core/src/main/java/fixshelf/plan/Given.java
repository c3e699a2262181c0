package fixshelf.plan;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.Set;

/// What an operation is given: the table before, and its blanks, read and typed.
public final class Given {
    private final Context context;
    private final Map<String, Object> values = new HashMap<>();
    private final Map<String, Written> written = new HashMap<>();
    private final Set<String> helpers = new HashSet<>();

    Given(Context context) {
        this.context = context;
    }

    void write(String blank, Written what) {
        written.put(blank, what);
    }

    /// What its author wrote in a blank, or what is usual there.
    Optional<Written> written(String blank) {
        return Optional.ofNullable(written.get(blank));
    }

    void put(String blank, Object value) {
        values.put(blank, value);
    }

    public Context context() {
        return context;
    }

    public Relation before() {
        return context.before();
    }

    public List<Field> fields() {
        return context.fields();
    }

    /// What stands in a blank that must be filled or has a fallback.
    public <T> T get(Blank<T> blank) {
        return find(blank).orElseThrow(() -> new NoSuchElementException(blank.name()));
    }

    /// What stands in a blank, if anything does.
    @SuppressWarnings("unchecked") // a blank's kind gave the value
    public <T> Optional<T> find(Blank<T> blank) {
        return Optional.ofNullable((T) values.get(blank.name()));
    }

    /// A new field.
    public Field field(String name, Type type) {
        return new Field(context.ids().next(), name, type);
    }

    /// A new field that nobody sees afterwards, with a name that no field has, nor another helper: several of them
    /// stand in one table in between.
    public Field helper(String wanted, Type type) {
        String fits = shortened(wanted);
        String name = fits;
        for (int n = 2; before().shape().find(name).isPresent() || !helpers.add(name.toLowerCase(Locale.ROOT)); n++) {
            name = fits + "_" + n;
        }
        return field(name, type);
    }

    /// Names of columns may be as long as a language allows, what is made of them not any longer.
    private static final int LONGEST_HELPER = 56;

    private static String shortened(String name) {
        if (name.getBytes(StandardCharsets.UTF_8).length <= LONGEST_HELPER) {
            return name;
        }
        int[] signs = name.codePoints().toArray();
        int kept = LONGEST_HELPER / 4 / 2;
        return new String(signs, 0, Math.min(kept, signs.length)) + "_"
                + new String(signs, Math.max(0, signs.length - kept), Math.min(kept, signs.length));
    }

    /// Another table in place of the one before: no row of that, with the columns of the other, and its rows below.
    public Relation begun(Relation other) {
        List<Computed> none = new ArrayList<>();
        List<Field> named = new ArrayList<>();
        for (Field field : other.shape().fields()) {
            Field made = helper(field.name(), field.type());
            none.add(new Computed(made, Formula.missing(field.type())));
            named.add(made.named(field.name()));
        }
        Relation nothing = new Relation.Compute(new Relation.Keep(before(), Expr.Literal.truth(false)), none);
        Shape columns = new Shape(none.stream().map(Computed::made).toList());
        return new Relation.Pick(
                new Relation.Union(List.of(new Relation.Pick(nothing, columns), other)), new Shape(named));
    }

    /// Whether a new column of that name would meet one that is there.
    public Optional<Problem> meets(String name) {
        return before().shape()
                .find(name)
                .map(f -> problem(
                        Code.NAME_CLASH,
                        "There is a column " + f.name() + " already.",
                        "Choose another name, or leave the column out before."));
    }

    public static Problem problem(Code code, String what, String todo) {
        return Problem.about(code, "line", what, todo);
    }

    /// One about some words of what is written.
    public static Problem problem(Code code, String words, String what, String todo) {
        return Refusal.about(words, problem(code, what, todo));
    }

    public static Operation.Resolution refused(Code code, String what, String todo) {
        return new Operation.Resolution.Refused(List.of(problem(code, what, todo)));
    }

    /// The table before with these cells.
    public Relation computed(List<Computed> cells) {
        return cells.isEmpty() ? before() : new Relation.Compute(before(), cells);
    }

    /// A relation without some fields, as helpers are.
    public static Relation without(Relation from, List<Field> gone) {
        return new Relation.Pick(
                from,
                new Shape(from.shape().fields().stream()
                        .filter(f -> gone.stream().noneMatch(g -> g.id() == f.id()))
                        .toList()));
    }

    /// A plain value as a constant of that type; empty where it is none.
    public Optional<Expr> constant(String text, Type type) {
        return new ArgumentKind(new fixshelf.language.tree.Parameter("value", type, Optional.empty(), "", false))
                .read(Written.word(text), context)
                .value();
    }

    /// A value as it comes out of a fix of one text.
    public static Expr through(Definition fix, Expr value) {
        List<Expr> arguments = new ArrayList<>(List.of(value));
        fix.parameters().stream().skip(1).forEach(p -> arguments.add(ArgumentKind.value(p, Optional.empty())));
        return new Expr.FixCall(fix, arguments);
    }
}
