package fixshelf.plan;

import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// A value fix by its name, through which values go before they are compared. It takes a text, and everything else
/// that it asks for is usually known.
///
/// What it means is the definition.
final class FixKind implements Kind<Definition> {
    @Override
    public String name() {
        return "a fix";
    }

    @Override
    public Outcome<Definition> read(Written written, Context context) {
        String name = written instanceof Written.Word(String text) ? text : "?";
        return switch (context.fixes().find(name)) {
            case Scope.Found.Ready(Definition fix) -> ofOneText(fix);
            case Scope.Found.Broken(String why) ->
                Refusal.of(Code.NO_SUCH, name, "The fix " + name + " cannot be used: " + why, "Mend that fix first.");
            case Scope.Found.Cyclic(List<String> path) ->
                Refusal.of(
                        Code.CYCLE,
                        name,
                        "Fixes call each other in a circle: " + String.join(" → ", path) + ".",
                        "Break it.");
            case Scope.Found.Missing _ ->
                Refusal.of(
                        Code.NO_SUCH,
                        name,
                        "There is no fix " + name + " on this shelf.",
                        Names.suggest(name, List.copyOf(context.fixes().names()), "Write it, or name another."));
        };
    }

    private static Outcome<Definition> ofOneText(Definition fix) {
        boolean one = !fix.parameters().isEmpty()
                && fix.parameters().getFirst().type().equals(Type.TEXT)
                && fix.parameters().stream().skip(1).allMatch(p -> p.fallback().isPresent());
        return one
                ? Outcome.of(fix)
                : Refusal.of(
                        Code.ARGUMENTS,
                        fix.signature() + " does not take a single text.",
                        "Name a fix of one text, or write one that calls it.");
    }

    @Override
    public String say(Written written) {
        return written instanceof Written.Word(String text) ? text : "?";
    }

    @Override
    public Outcome<Written> typed(String text) {
        return text.isBlank()
                ? Refusal.field("Which fix?", "Type the name of a fix.")
                : Outcome.of(Written.word(text.strip()));
    }

    @Override
    public List<String> choices(Choices choices) {
        return choices.fixes();
    }

    @Override
    public Optional<Written> beginning(Choices choices) {
        return choices.fixes().stream().findFirst().map(Written::word);
    }
}
