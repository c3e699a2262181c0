package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.DateFunctions;
import fixshelf.language.catalogue.TimeFunctions;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Names;
import fixshelf.type.Type;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneOffsetTransitionRule;
import java.time.zone.ZoneRules;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/// Universal time and the time of a zone, by the rule that is in force in the zone today: a
/// distance, or two, and the days on which its clocks are changed. The rule is written out as an
/// expression over the year of the time, so that no engine is asked what it knows of zones.
///
/// Source of the rules: the time zone database (IANA) as it comes with Java.
final class Zones {
    /// A rule that begins later is none that is in force.
    private static final int LATEST_BEGIN = 2030;

    private static final int MONTHS = 12;
    private static final int BASE_YEAR = 2000;
    private static final long WEEK = 7;
    private static final int SECONDS_A_DAY = 86_400;

    private final ZoneRules rules;
    private final int firstYear;

    private Zones(ZoneRules rules) {
        this.rules = rules;
        this.firstYear = rules.isFixedOffset() || rules.getTransitions().isEmpty()
                ? 1
                : rules.getTransitions().getLast().getDateTimeAfter().getYear() + 1;
    }

    /// The zone of that name, or of that distance, as `+02:00`; empty where there is none with a rule.
    static Optional<Zones> of(String name) {
        try {
            Zones zone = new Zones(ZoneId.of(name).getRules());
            return zone.firstYear > LATEST_BEGIN ? Optional.empty() : Optional.of(zone);
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /// Why a name will not do; empty where it will.
    static Optional<String> problemWith(String name) {
        if (of(name).isPresent()) {
            return Optional.empty();
        }
        boolean known = ZoneId.getAvailableZoneIds().contains(name);
        return Optional.of(
                known
                        ? "The changes of the clock in " + name + " follow no rule."
                        : "There is no zone '" + name + "'.");
    }

    /// The zones whose names are near.
    static String suggestion(String name) {
        String example = "Give a name as 'Europe/Dublin', or a distance as '+02:00'.";
        return ZoneId.getAvailableZoneIds().contains(name)
                ? "Add its distance with add_seconds."
                : Names.suggest(
                        name, ZoneId.getAvailableZoneIds().stream().sorted().toList(), example);
    }

    /// The clock of the zone at a universal time.
    Expr local(Expr universal) {
        List<Change> changes = changes(universal);
        Expr distance = seconds(last(changes));
        for (Change change : changes.reversed()) {
            distance = when(
                    call(Comparisons.LESS, universal, change.at(ZoneOffset.UTC)), seconds(change.before()), distance);
        }
        return inForce(universal, call(TimeFunctions.ADD_SECONDS, universal, distance));
    }

    /// The universal time of a clock in the zone: the earlier of two where clocks are put back, none where they are put
    /// forward.
    Expr universal(Expr local) {
        List<Change> changes = changes(local);
        Expr time = earlier(local, last(changes));
        for (Change change : changes.reversed()) {
            if (change.after().getTotalSeconds() > change.before().getTotalSeconds()) {
                time = when(
                        call(Comparisons.LESS, local, change.at(change.after())),
                        new Expr.Literal(null, Type.TIMESTAMP),
                        time);
            }
            time = when(
                    call(Comparisons.LESS, local, change.at(change.before())), earlier(local, change.before()), time);
        }
        return inForce(local, time);
    }

    private Expr inForce(Expr time, Expr then) {
        if (firstYear <= 1) {
            return then;
        }
        Expr begins = new Expr.Literal(LocalDateTime.of(firstYear, 1, 1, 0, 0), Type.TIMESTAMP);
        return when(call(Comparisons.AT_LEAST, time, begins), then);
    }

    private static Expr earlier(Expr time, ZoneOffset distance) {
        return call(TimeFunctions.ADD_SECONDS, time, number(-distance.getTotalSeconds()));
    }

    private static Expr seconds(ZoneOffset distance) {
        return number(distance.getTotalSeconds());
    }

    /// The distance at the end of a year.
    private ZoneOffset last(List<Change> changes) {
        if (!changes.isEmpty()) {
            return changes.getLast().after();
        }
        List<ZoneOffsetTransition> all = rules.getTransitions();
        return all.isEmpty()
                ? rules.getOffset(LocalDateTime.of(BASE_YEAR, 1, 1, 0, 0))
                : all.getLast().getOffsetAfter();
    }

    /// The changes of the clock in the year of a time.
    private List<Change> changes(Expr time) {
        Expr year = call(DateFunctions.YEAR, call(TimeFunctions.DATE_OF, time));
        List<Change> changes = new ArrayList<>();
        for (ZoneOffsetTransitionRule rule : rules.getTransitionRules()) {
            changes.add(new Change(rule, day(rule, year)));
        }
        changes.sort(Comparator.comparing(c -> c.rule().getMonth()));
        return changes;
    }

    /// A change of the clock, and the expression for its day.
    private record Change(ZoneOffsetTransitionRule rule, Expr day) {
        ZoneOffset before() {
            return rule.getOffsetBefore();
        }

        ZoneOffset after() {
            return rule.getOffsetAfter();
        }

        /// When it comes, on a clock with that distance.
        Expr at(ZoneOffset clock) {
            int seconds = rule.isMidnightEndOfDay()
                    ? SECONDS_A_DAY
                    : rule.getLocalTime().toSecondOfDay();
            ZoneOffset told =
                    switch (rule.getTimeDefinition()) {
                        case UTC -> ZoneOffset.UTC;
                        case STANDARD -> rule.getStandardOffset();
                        case WALL -> rule.getOffsetBefore();
                    };
            int moved = seconds - told.getTotalSeconds() + clock.getTotalSeconds();
            Expr midnight = call(TimeFunctions.AT_MIDNIGHT, day);
            return moved == 0 ? midnight : call(TimeFunctions.ADD_SECONDS, midnight, number(moved));
        }
    }

    /// The day of a rule: one of a month, or the first of a weekday from there on, or the last until there.
    private static Expr day(ZoneOffsetTransitionRule rule, Expr year) {
        int wanted = rule.getDayOfMonthIndicator();
        boolean fromEnd = wanted < 0;
        // Days of a month from its end are counted from the first of the next.
        int month = rule.getMonth().getValue() - (fromEnd ? 0 : 1);
        Expr months =
                call(Arithmetic.PLUS, call(Arithmetic.TIMES, year, number(MONTHS)), number(month - MONTHS * BASE_YEAR));
        Expr first = call(
                DateFunctions.ADD_MONTHS, new Expr.Literal(java.time.LocalDate.of(BASE_YEAR, 1, 1), Type.DATE), months);
        int days = fromEnd ? wanted : wanted - 1;
        Expr day = days == 0 ? first : call(DateFunctions.ADD_DAYS, first, number(days));
        if (rule.getDayOfWeek() == null) {
            return day;
        }
        long weekday = rule.getDayOfWeek().getValue();
        Expr now = call(DateFunctions.WEEKDAY, day);
        Expr apart = fromEnd
                ? call(Arithmetic.PLUS, now, number(WEEK - weekday))
                : call(Arithmetic.MINUS, number(weekday + WEEK), now);
        Expr within = call(Arithmetic.MOD, apart, number(WEEK));
        return call(DateFunctions.ADD_DAYS, day, fromEnd ? call(Arithmetic.MINUS, number(0), within) : within);
    }
}
