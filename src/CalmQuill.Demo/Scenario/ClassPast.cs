using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Demo.Hand;
using CalmQuill.Store.Documents;

namespace CalmQuill.Demo.Scenario;

/// <summary>
/// What the class did over two weeks to the page on the anchor escapement: it wrote on, put right what was wrong, and named the moment before the test.
/// </summary>
internal sealed class ClassPast(
    DocumentStore documents,
    Guid group,
    Guid notebook,
    Guid page,
    Guid momentId,
    IReadOnlyList<(Guid Id, SingleLineFont Font)> writers,
    Random random,
    DateTimeOffset now
)
{
    private const int Ines = 0,
        Tobias = 1,
        Maren = 2,
        Oskar = 3;

    public async Task Happen(CancellationToken cancel)
    {
        await Write(Tobias, 11, 34, "lift of a pallet: about 2 degrees", PageWriter.Sky, cancel);
        var wrong = await Write(Oskar, 9, 35, "deadbeat: no recoil, so it needs no oil", PageWriter.Madder, cancel);
        await Do(Maren, 8, new Change.ItemsRemoved([.. wrong.Select(operation => operation.Id)]), cancel);
        await Write(Maren, 8, 36, "deadbeat: no recoil, and it needs oil", PageWriter.Ink, cancel);
        var moved = await Write(Ines, 6, 37, "measured: 1.9 degrees on the hall clock", PageWriter.Madder, cancel);
        await Do(Ines, 6, new Change.ItemsShifted([.. moved.Select(operation => operation.Id)], 1_400, 0), cancel);
        var hasty = await Write(Oskar, 3, 33, "will not be asked", PageWriter.Plum, cancel);
        await Do(Tobias, 2, new Change.ItemsRemoved([.. hasty.Select(operation => operation.Id)]), cancel);
        await Do(
            Tobias,
            1,
            new Change.GapsAdded([
                .. moved
                    .Where(operation => operation.Change is Change.StrokeAdded)
                    .TakeLast(5)
                    .Select(operation => new StrokeGaps(operation.Id, [new Interval(0, Interval.PerSample * 400)])),
            ]),
            cancel
        );
        var at = now.AddDays(-4).ToUnixTimeMilliseconds();
        var moment = new Moment(at, "before the test").Write();
        await documents.Append(
            DocumentRef.Notebook(group, notebook),
            [NewDevice(Maren).Make(new Change.PropertySet(momentId, Property.Moment, moment), at)],
            cancel
        );
    }

    private async Task<IReadOnlyList<Operation>> Write(
        int who,
        int daysAgo,
        double line,
        string text,
        uint colour,
        CancellationToken cancel
    )
    {
        var writer = new PageWriter(NewDevice(who), writers[who].Font, random, now.AddDays(-daysAgo));
        writer.Line(line, text, colour);
        await documents.Append(DocumentRef.Page(group, page), writer.Operations, cancel);
        return writer.Operations;
    }

    private Task Do(int who, int daysAgo, Change change, CancellationToken cancel) =>
        documents.Append(
            DocumentRef.Page(group, page),
            [NewDevice(who).Make(change, now.AddDays(-daysAgo).AddMinutes(12).ToUnixTimeMilliseconds())],
            cancel
        );

    private Replica NewDevice(int who) => new((ulong)random.NextInt64(), writers[who].Id);
}
