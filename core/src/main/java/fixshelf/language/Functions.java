package fixshelf.language;

import fixshelf.language.FunctionDef.Example;
import fixshelf.language.FunctionDef.Group;
import fixshelf.language.FunctionDef.Nulls;
import fixshelf.language.FunctionDef.Result;
import fixshelf.language.FunctionDef.Slot;
import fixshelf.language.FunctionDef.Wants;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// The function catalogue: one list, from which everything else is made.
public final class Functions {
    private Functions() {}

    public static final List<FunctionDef> ALL = Stream.of(
                    TextFunctions.ALL, PatternFunctions.ALL, NullFunctions.ALL, Comparisons.ALL, Conversions.ALL)
            .flatMap(List::stream)
            .toList();

    private static final Map<String, FunctionDef> BY_NAME = byName();

    /// The function of that name or alias, without regard to case.
    public static Optional<FunctionDef> find(String name) {
        return Optional.ofNullable(BY_NAME.get(name.toLowerCase(Locale.ROOT)));
    }

    /// The names that can be written as a call, for completion and suggestions.
    public static List<String> callableNames() {
        return ALL.stream().filter(f -> !f.isOperator()).map(FunctionDef::name).toList();
    }

    private static Map<String, FunctionDef> byName() {
        Map<String, FunctionDef> all = new HashMap<>();
        for (FunctionDef function : ALL) {
            List<String> names = new ArrayList<>(function.aliases());
            names.add(function.name());
            for (String name : names) {
                if (all.put(name.toLowerCase(Locale.ROOT), function) != null) {
                    throw new IllegalStateException("two functions are called " + name);
                }
            }
        }
        return all;
    }

    static Slot text(String name) {
        return new Slot(name, Wants.TEXT, false, false);
    }

    static Slot fixedText(String name) {
        return new Slot(name, Wants.TEXT, true, false);
    }

    static Slot integer(String name) {
        return new Slot(name, Wants.INTEGER, false, false);
    }

    static Slot same(String name) {
        return new Slot(name, Wants.SAME, false, false);
    }

    static Slot condition(String name) {
        return new Slot(name, Wants.BOOLEAN, false, false);
    }

    static Slot optional(Slot slot) {
        return new Slot(slot.name(), slot.wants(), slot.fixed(), true);
    }

    static Slot fixed(Slot slot) {
        return new Slot(slot.name(), slot.wants(), true, slot.optional());
    }

    /// Begins an entry; the rest is said with the methods of [Entry].
    static Entry define(Group group, String name, Slot... slots) {
        return new Entry(group, name, List.of(slots));
    }

    /// A catalogue entry being written.
    static final class Entry {
        private final Group group;
        private final String name;
        private final List<Slot> slots;
        private final List<Example> examples = new ArrayList<>();
        private List<String> aliases = List.of();
        private boolean variadic;
        private Nulls nulls = Nulls.IF_ANY;
        private Result result = Result.TEXT;
        private String about = "";

        private Entry(Group group, String name, List<Slot> slots) {
            this.group = group;
            this.name = name;
            this.slots = slots;
        }

        Entry aliases(String... names) {
            aliases = List.of(names);
            return this;
        }

        Entry repeatsLast() {
            variadic = true;
            return this;
        }

        Entry ownNulls() {
            nulls = Nulls.AS_DESCRIBED;
            return this;
        }

        Entry gives(Result type) {
            result = type;
            return this;
        }

        Entry about(String meaning) {
            about = meaning.strip().replace('\n', ' ');
            return this;
        }

        Entry example(String call, String value) {
            examples.add(new Example(call, value));
            return this;
        }

        FunctionDef done() {
            return new FunctionDef(name, aliases, slots, variadic, result, nulls, group, about, List.copyOf(examples));
        }
    }
}
