package fixshelf.render;

import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What data frame languages have in common: fixes are functions that call each other, after a prelude.
abstract class FrameLanguage implements Language {

    /// One fix as a function, without the fixes that it calls.
    abstract String function(Definition fix, String about);

    /// An expression over the columns of a data frame.
    abstract String written(Expr expr);

    /// What has to stand before a piece of code.
    abstract String before(String code);

    /// What stands between two functions.
    abstract String between();

    @Override
    public Outcome<String> expression(Expr expr) {
        return outcome(() -> written(Inliner.inline(expr, Map.of())));
    }

    @Override
    public Outcome<String> call(Definition fix, List<Expr> arguments) {
        return outcome(() -> written(new Expr.FixCall(fix, arguments)));
    }

    @Override
    public Outcome<String> definition(Definition fix, String about) {
        return outcome(() -> {
            List<String> functions = new ArrayList<>();
            for (Definition definition : Calls.neededBy(fix)) {
                boolean asked = definition.name().equals(fix.name());
                functions.add(function(definition, asked ? Calls.about(fix, about) : ""));
            }
            return together(functions);
        });
    }

    @Override
    public String module(List<Described> fixes) {
        Map<String, String> abouts = new LinkedHashMap<>();
        fixes.forEach(f -> abouts.put(f.fix().name(), Calls.about(f.fix(), f.about())));
        Map<String, String> functions = new LinkedHashMap<>();
        for (Described described : fixes) {
            for (Definition fix : Calls.neededBy(described.fix())) {
                functions.computeIfAbsent(fix.name(), name -> function(fix, abouts.getOrDefault(name, "")));
            }
        }
        return together(List.copyOf(functions.values()));
    }

    private String together(List<String> functions) {
        String code = String.join(between(), functions);
        return before(code) + between() + code;
    }

    /// Work that can be refused with a [ProblemException].
    interface Work {
        String code();
    }

    static Outcome<String> outcome(Work work) {
        try {
            return Outcome.of(work.code());
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }
}
