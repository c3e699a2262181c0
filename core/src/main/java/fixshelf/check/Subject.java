package fixshelf.check;

import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Parameter;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Something whose parity is shown: a fix of a shelf, or a call of a catalogue function.
///
/// @param name the name of the fix, or the call
/// @param page the page of a fix, whose cases and texts make good inputs
/// @param share among how many subjects the made-up values are divided: the examples of one function
public record Subject(String name, Definition fix, Optional<FixPage> page, int share) {

    public Subject(String name, Definition fix, Optional<FixPage> page) {
        this(name, fix, page, 1);
    }

    /// The fixes of a shelf that compile.
    public static List<Subject> ofFixes(Shelf shelf, List<FixPage> pages) {
        List<Subject> subjects = new ArrayList<>();
        for (FixPage page : pages) {
            shelf.definition(page)
                    .value()
                    .ifPresent(fix -> subjects.add(new Subject(page.name(), fix, Optional.of(page))));
        }
        return subjects;
    }

    /// Each example of a function as a fix: its fixed arguments stay, the others become parameters.
    public static List<Subject> ofFunction(FunctionDef function) {
        List<Subject> subjects = new ArrayList<>();
        for (FunctionDef.Example example : function.examples()) {
            Expr expr = ExpressionParser.parse("example", example.call(), new Scope(Scope.Fixes.NONE))
                    .get();
            if (expr instanceof Expr.Call call) {
                subjects.add(new Subject(example.call(), opened(call), Optional.empty()));
            }
        }
        return subjects.stream().filter(s -> !s.fix().parameters().isEmpty()).toList();
    }

    private static Definition opened(Expr.Call call) {
        List<Parameter> parameters = new ArrayList<>();
        List<Expr> arguments = new ArrayList<>();
        for (int i = 0; i < call.arguments().size(); i++) {
            FunctionDef.Slot slot = call.function().slot(i);
            Expr argument = call.argument(i);
            Type type = wanted(slot, argument.type());
            if (slot.fixed() || type instanceof Type.Unknown) {
                arguments.add(argument);
                continue;
            }
            String name = slot.name() + (i < call.function().slots().size() ? "" : String.valueOf(i));
            parameters.add(new Parameter(name, type, Optional.empty(), "", false));
            arguments.add(new Expr.Name(name, type));
        }
        Expr body = new Expr.Call(call.function(), arguments);
        return new Definition("example", parameters, body.type(), new Body(List.of(), body));
    }

    private static Type wanted(FunctionDef.Slot slot, Type given) {
        return switch (slot.wants()) {
            case TEXT -> Type.TEXT;
            case INTEGER -> Type.INTEGER;
            case BOOLEAN -> Type.BOOLEAN;
            case DATE -> Type.DATE;
            case TIMESTAMP -> Type.TIMESTAMP;
            case NUMBER -> Type.NUMBER;
            case NUMERIC, REAL, SAME, ANY, LIST, MAPPING -> given;
        };
    }

    /// The rows to try: cases, edges, and made-up ones, the same for the same seed.
    List<List<Expr.Literal>> rows(int madeUp, long seed) {
        Inputs inputs = new Inputs(fix, page, seed);
        List<List<Expr.Literal>> rows = new ArrayList<>(inputs.ofCases());
        rows.addAll(inputs.madeUp(madeUp / share));
        return rows;
    }
}
