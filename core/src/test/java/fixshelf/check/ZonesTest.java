package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.catalogue.Functions;
import fixshelf.language.emulation.Emulations;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/// Every zone whose rule can be written out, around the changes of its clock, held against the calendar of Java.
class ZonesTest {
    private static final int YEARS = 40;
    private static final long[] AROUND = {-7200, -3601, -3600, -1801, -1, 0, 1, 1799, 1800, 3599, 3600, 7200};

    @Test
    void clocksShowWhatTheRuleSays() {
        Random random = new Random(20261127);
        int zones = 0;
        for (String zone : ZoneId.getAvailableZoneIds().stream().sorted().toList()) {
            ZoneRules rules = ZoneId.of(zone).getRules();
            int first = Meaning.firstYear(rules);
            if (first > 2030) {
                continue;
            }
            zones++;
            List<LocalDateTime> times = new ArrayList<>(List.of(
                    LocalDateTime.of(Math.max(1, first - 1), 12, 31, 23, 59, 59),
                    LocalDateTime.of(Math.max(2, first), 1, 1, 0, 0),
                    LocalDateTime.of(9990, 6, 1, 0, 0)));
            int begin = Math.max(first, 2000) + random.nextInt(YEARS);
            for (var rule : rules.getTransitionRules()) {
                ZoneOffsetTransition change = rule.createTransition(begin);
                for (long seconds : AROUND) {
                    times.add(LocalDateTime.ofInstant(change.getInstant(), java.time.ZoneOffset.UTC)
                            .plusSeconds(seconds));
                    times.add(change.getDateTimeBefore().plusSeconds(seconds));
                    times.add(change.getDateTimeAfter().plusSeconds(seconds));
                }
            }
            Expr.Name time = new Expr.Name("t", Type.TIMESTAMP);
            Expr there = tree("to_zone", time, zone);
            Expr back = tree("from_zone", time, zone);
            for (LocalDateTime now : times) {
                Map<String, Object> row = Map.of("t", now);
                assertThat(TreeMeaning.of(there, row)).as("%s in %s", now, zone).isEqualTo(Meaning.inZone(now, zone));
                assertThat(TreeMeaning.of(back, row))
                        .as("%s from %s", now, zone)
                        .isEqualTo(Meaning.fromZone(now, zone));
            }
        }
        assertThat(zones).isGreaterThan(400);
    }

    private static Expr tree(String function, Expr time, String zone) {
        Expr.Call call = new Expr.Call(Functions.find(function).orElseThrow(), List.of(time, Expr.Literal.text(zone)));
        return Emulations.of(call).orElseThrow();
    }
}
