package eagerneedle.app.window;

import eagerneedle.app.calibrate.CalibrateStation;
import eagerneedle.app.capture.CaptureStation;
import eagerneedle.app.capture.PoolStation;
import eagerneedle.app.judge.JudgeStation;
import eagerneedle.app.plan.PlanStation;
import eagerneedle.app.record.RecordStation;
import eagerneedle.app.reduce.PooledReduce;
import eagerneedle.app.reduce.ReduceStation;
import eagerneedle.app.rig.RigStation;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.Station;
import eagerneedle.app.station.StationView;
import eagerneedle.app.workbench.Beginning;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;

/** The work surfaces of the stations, each made when it is first entered. */
final class Views {
    private static final Set<Station> EMPTY = EnumSet.of(Station.RIG, Station.CAPTURE, Station.REDUCE);

    private final Map<Station, StationView> made = new EnumMap<>(Station.class);
    private final Desk desk;
    private final Consumer<Beginning> add;

    /** @param add takes files or an instrument into the session that is shown */
    Views(Desk desk, Consumer<Beginning> add) {
        this.desk = desk;
        this.add = add;
    }

    StationView of(Station station) {
        return made.computeIfAbsent(station, this::make);
    }

    private StationView make(Station station) {
        boolean empty = desk.bench().sheet().captures().isEmpty()
                && !desk.bench().sheet().pool().isThere();
        if (empty && EMPTY.contains(station)) {
            return new EmptyBench(station, add);
        }
        return switch (station) {
            case PLAN -> new PlanStation(desk);
            case RIG -> new RigStation(desk);
            case CALIBRATE -> new CalibrateStation(desk);
            case CAPTURE -> desk.bench().sheet().pool().isThere() ? new PoolStation(desk) : new CaptureStation(desk);
            case REDUCE -> desk.bench().sheet().captures().isEmpty() ? new PooledReduce(desk) : new ReduceStation(desk);
            case JUDGE -> new JudgeStation(desk);
            case RECORD -> new RecordStation(desk);
        };
    }

    /** What the stations of another session have. */
    void forget() {
        made.clear();
    }

    /** What was laid out by a sheet that has changed; the others ask the sheet whenever they are shown. */
    void forgetLaidOut() {
        boolean captures = !desk.bench().sheet().captures().isEmpty();
        if (captures != made.get(Station.REDUCE) instanceof ReduceStation) {
            made.remove(Station.REDUCE);
        }
        made.keySet().retainAll(EnumSet.of(Station.REDUCE, Station.JUDGE, Station.RECORD));
    }

    /** Brings all that were entered up to now. */
    void refresh() {
        made.values().forEach(StationView::refresh);
    }
}
