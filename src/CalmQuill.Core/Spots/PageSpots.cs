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

        public RetractableRegisters<SpotField> Fields { get; } = new();

        public Placement Placement { get; } = new();
    }

    private static readonly Comparer<Stamp> ByStamp = Comparer<Stamp>.Create((one, other) => one.CompareTo(other));

    private readonly Dictionary<Guid, SortedList<Stamp, Answer>> answers = [];
    private readonly HashSet<OpId> withdrawn = [];

    public bool Any => states.Count > 0;

    /// <summary>Takes in what is said to a mark, or that it is not any more.</summary>
    public void Talk(Operation operation)
    {
        switch (operation.Change)
        {
            case Change.AnswerAdded added:
                if (!answers.TryGetValue(added.Spot, out var said))
                    answers[added.Spot] = said = new SortedList<Stamp, Answer>(ByStamp);
                said[operation.Stamp] = new Answer(
                    operation.Id,
                    operation.Author,
                    operation.Time.UnixMilliseconds,
                    added.Text,
                    added.Mentions,
                    added.Ink
                );
                break;
            case Change.AnswerWithdrawn taken:
                withdrawn.Add(taken.Answer);
                break;
        }
    }

    /// <summary>What was said, or taken away, is not yet.</summary>
    public void Unsay(Operation operation)
    {
        switch (operation.Change)
        {
            case Change.AnswerAdded added:
                answers[added.Spot].Remove(operation.Stamp);
                break;
            case Change.AnswerWithdrawn taken:
                withdrawn.Remove(taken.Answer);
                break;
        }
    }

    public bool IsMade(Guid spot) => states.TryGetValue(spot, out var state) && state.Made.Count > 0;

    private List<Answer> AnswersTo(Guid spot) =>
        answers.TryGetValue(spot, out var said) ? [.. said.Values.Where(answer => !withdrawn.Contains(answer.Id))] : [];

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
                    Of(spot).Placement.Add(operation.Stamp, transformed.Transform, adds);
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
            foreach (var field in state.Fields.Fields)
            {
                if (state.Fields.Read(field) is { Length: > 0 } value)
                    values[field] = value;
            }

            if (values.ContainsKey(SpotField.Removed))
                continue;
            Box? ink = null;
            foreach (var item in made.Items)
            {
                if (areaOf(item) is { } box)
                    ink = ink?.With(box) ?? box;
            }

            var done = values.ContainsKey(SpotField.Done) ? state.Fields.Latest(SpotField.Done) : null;
            spots.Add(
                (
                    stamp,
                    new Spot(
                        id,
                        made.SpotKind,
                        ink ?? state.Placement.Of(made.Area),
                        made.Items,
                        values,
                        stamp.Time.UnixMilliseconds,
                        author,
                        done?.Stamp.Time.UnixMilliseconds,
                        done?.Author ?? Guid.Empty,
                        AnswersTo(id)
                    )
                )
            );
        }

        return [.. spots.OrderBy(one => one.Stamp).Select(one => one.Spot)];
    }

    private static void Write(State state, Operation operation, SpotValue value, bool adds) =>
        state.Fields.Write(operation.Stamp, operation.Author, value.Field, value.Value, adds);

    private State Of(Guid spot)
    {
        if (!states.TryGetValue(spot, out var state))
            states[spot] = state = new State();
        return state;
    }
}
