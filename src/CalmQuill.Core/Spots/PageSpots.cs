using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Spots;

/// <summary>The spots of one page. Every write can be taken out again, so that undo takes back just the own step.</summary>
public sealed class PageSpots
{
    private readonly Dictionary<Guid, State> states = [];

    private sealed class State
    {
        /// <summary>What made it, by stamp; with more than one, which only a copy of an id could cause, the first counts.</summary>
        public SortedList<Stamp, (Guid Author, Change.SpotAdded Change)> Made { get; } = new(ByStamp);

        public Dictionary<SpotField, SortedList<Stamp, (Guid Author, string Value)>> Fields { get; } = [];

        public Placing Placing { get; } = new();
    }

    private static readonly Comparer<Stamp> ByStamp = Comparer<Stamp>.Create((one, other) => one.CompareTo(other));

    public bool Any => states.Count > 0;

    /// <summary>Puts a change in, or takes it out.</summary>
    public void Contribute(Operation operation, bool adds)
    {
        switch (operation.Change)
        {
            case Change.SpotAdded added:
                var made = Of(added.Spot);
                if (adds)
                    made.Made[operation.Stamp] = (operation.Author, added);
                else
                    made.Made.Remove(operation.Stamp);
                foreach (var value in added.Values)
                    Write(made, operation, value, adds);
                break;
            case Change.SpotSet set:
                foreach (var value in set.Values)
                    Write(Of(set.Spot), operation, value, adds);
                break;
            case Change.ItemsTransformed transformed:
                foreach (var spot in transformed.Spots.Distinct())
                    Of(spot).Placing.Add(operation.Stamp, transformed.Transform, adds);
                break;
        }
    }

    /// <summary>The spots that stand, oldest first.</summary>
    /// <param name="areaOf">The box of an item that is shown; null for one that is not.</param>
    public List<Spot> All(Func<OpId, Box?> areaOf)
    {
        var spots = new List<(Stamp Stamp, Spot Spot)>();
        foreach (var (id, state) in states)
        {
            if (state.Made.Count == 0)
                continue;
            var stamp = state.Made.Keys[0];
            var (author, made) = state.Made.Values[0];
            var values = new Dictionary<SpotField, string>();
            foreach (var (field, writes) in state.Fields)
            {
                if (writes.Count > 0 && writes.Values[^1].Value.Length > 0)
                    values[field] = writes.Values[^1].Value;
            }

            if (values.ContainsKey(SpotField.Removed))
                continue;
            Box? ink = null;
            foreach (var item in made.Items)
            {
                if (areaOf(item) is { } box)
                    ink = ink?.With(box) ?? box;
            }

            long? doneAt = null;
            var doneBy = Guid.Empty;
            if (values.ContainsKey(SpotField.Done))
                (doneAt, doneBy) = (
                    state.Fields[SpotField.Done].Keys[^1].Time.UnixMilliseconds,
                    state.Fields[SpotField.Done].Values[^1].Author
                );
            spots.Add(
                (
                    stamp,
                    new Spot(
                        id,
                        made.SpotKind,
                        ink ?? state.Placing.Of(made.Area),
                        made.Items,
                        values,
                        stamp.Time.UnixMilliseconds,
                        author,
                        doneAt,
                        doneBy
                    )
                )
            );
        }

        return [.. spots.OrderBy(one => one.Stamp).Select(one => one.Spot)];
    }

    private static void Write(State state, Operation operation, SpotValue value, bool adds)
    {
        if (!state.Fields.TryGetValue(value.Field, out var writes))
            state.Fields[value.Field] = writes = new(ByStamp);
        if (adds)
            writes[operation.Stamp] = (operation.Author, value.Value);
        else
            writes.Remove(operation.Stamp);
    }

    private State Of(Guid spot)
    {
        if (!states.TryGetValue(spot, out var state))
            states[spot] = state = new State();
        return state;
    }
}
