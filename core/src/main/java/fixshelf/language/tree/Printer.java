package fixshelf.language.tree;

import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.List;
import java.util.stream.Collectors;

/// Prints an expression in the reference syntax, so that it reads back as the same tree.
public final class Printer {
    private Printer() {}

    public static String print(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Object value, Type _) -> Literals.print(value);
            case Expr.Name(String name, Type _) -> name(name);
            case Expr.Call(FunctionDef function, List<Expr> arguments, Type _) -> call(function, arguments);
            case Expr.FixCall(Definition fix, List<Expr> arguments) -> fix.name() + list(arguments);
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type _) -> choice(branches, otherwise);
        };
    }

    /// A name, quoted where it would not be read as one.
    public static String name(String name) {
        boolean plain = name.matches("[A-Za-z_][A-Za-z0-9_]*")
                && !Lexer.KEYWORDS.contains(name.toLowerCase(java.util.Locale.ROOT));
        return plain ? name : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    private static String call(FunctionDef function, List<Expr> arguments) {
        if (!function.isOperator()) {
            return function.name() + list(arguments);
        }
        List<String> printed = arguments.stream().map(Printer::inner).toList();
        return switch (function.name()) {
            case "NOT" -> "NOT " + printed.getFirst();
            case "IS NULL" -> printed.getFirst() + " IS NULL";
            case "IN" ->
                printed.getFirst() + " IN " + printed.stream().skip(1).collect(Collectors.joining(", ", "(", ")"));
            case "LIKE" ->
                printed.get(0) + " LIKE " + printed.get(1) + (printed.size() > 2 ? " ESCAPE " + printed.get(2) : "");
            default -> String.join(" " + function.name() + " ", printed);
        };
    }

    private static String inner(Expr expr) {
        boolean bare =
                switch (expr) {
                    case Expr.Literal _, Expr.Name _, Expr.FixCall _, Expr.Case _ -> true;
                    case Expr.Call call -> !call.function().isOperator();
                };
        return bare ? print(expr) : "(" + print(expr) + ")";
    }

    private static String list(List<Expr> arguments) {
        return arguments.stream().map(Printer::print).collect(Collectors.joining(", ", "(", ")"));
    }

    private static String choice(List<Expr.Branch> branches, Expr otherwise) {
        String whens = branches.stream()
                .map(b -> " WHEN " + print(b.condition()) + " THEN " + print(b.result()))
                .collect(Collectors.joining());
        return "CASE" + whens + " ELSE " + print(otherwise) + " END";
    }
}
