using System.Text.Json;
using CalmQuill.Core.Asides;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Demo.Hand;
using CalmQuill.Store.Documents;

namespace CalmQuill.Demo.Scenario;

/// <summary>What the class says to what was asked on its pages, and what Ines noted for herself in a lesson.</summary>
internal sealed class ClassTalk(
    DocumentStore documents,
    Guid group,
    IReadOnlyDictionary<(string Notebook, string Page), Guid> pages,
    IReadOnlyList<(Guid Id, SingleLineFont Font)> writers,
    Random random,
    DateTimeOffset now
)
{
    private const int Ines = 0,
        Tobias = 1,
        Maren = 2,
        Oskar = 3;

    /// <summary>Answers to the ask on a page: who says it, so many hours ago, and to whom in particular.</summary>
    private static readonly (string Notebook, string Page, (int Who, int Hours, string Text, int? To)[] Said)[] Answers =
    [
        (
            "Anchor and deadbeat",
            "The anchor escapement",
            [
                (Tobias, 196, "The bob still swings on after the tooth has landed, and the pallet pushes the wheel back a little.", null),
                (Ines, 170, "And on a deadbeat it cannot, since its locking faces are arcs about the arbor?", null),
                (
                    Maren,
                    20,
                    "@Ines yes. Watch the seconds hand of the hall clock: it steps back at every beat, the regulator's does not.",
                    Ines
                ),
            ]
        ),
        (
            "Anchor and deadbeat",
            "The deadbeat",
            [
                (Oskar, 44, "Only as deep as is safe: every bit more is rubbed away at each beat.", null),
                (Tobias, 41, "We left a quarter of a millimetre.", null),
            ]
        ),
        (
            "Going train",
            "Missing wheel",
            [(Tobias, 6, "@Ines counted twice, with a mark of ink: 36. Please count once more on Wednesday.", Ines)]
        ),
    ];

    public async Task Answer(CancellationToken cancel)
    {
        foreach (var (notebook, title, said) in Answers)
        {
            var page = DocumentRef.Page(group, pages[(notebook, title)]);
            var ask = (await documents.Page(group, page.Id, cancel)).Spots().First(spot => spot[SpotField.Mark] == MarkKinds.Ask);
            foreach (var (who, hours, text, to) in said)
            {
                var change = new Change.AnswerAdded(ask.Id, text, to is { } one ? [writers[one].Id] : [], ReadOnlyMemory<byte>.Empty);
                await documents.Append(page, [NewDevice(who).Make(change, now.AddHours(-hours).ToUnixTimeMilliseconds())], cancel);
            }
        }
    }

    /// <summary>On the first page of the escapements Ines wrote beside the ink, where only she sees it.</summary>
    /// <param name="notebook">The notebook that the page is in.</param>
    /// <param name="own">Her own library.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task NoteAside(Guid notebook, Guid own, CancellationToken cancel)
    {
        const string title = "The anchor escapement";
        var page = pages[("Anchor and deadbeat", title)];
        var device = NewDevice(Ines);
        var at = now.AddHours(-26);
        var writer = new PageWriter(device, writers[Ines].Font, random, at);
        writer.Line(3.8, "draw this from memory", PageWriter.Plum, 128);
        writer.Line(19, "ask Maren about the hall clock", PageWriter.Plum, 108);
        var aside = new PageDocument();
        var lay = new AsideLay(aside, await documents.Page(group, page, cancel));
        List<Operation> operations = [];
        foreach (var operation in writer.Operations)
        {
            aside.Apply(operation);
            operations.Add(operation);
            if (aside.Find(operation.Id) is { } item && lay.AnchorFor(item) is { } anchored)
                operations.Add(device.Make(anchored, operation.Time.UnixMilliseconds));
        }

        await documents.Append(DocumentRef.Aside(own, page), operations, cancel);
        var note = JsonSerializer.Serialize(
            new
            {
                space = group,
                notebook,
                title,
                paper = "a4-ruled-710",
            }
        );
        await documents.Append(
            DocumentRef.Library(own),
            [device.Make(new Change.PropertySet(page, Property.Aside, note), at.ToUnixTimeMilliseconds())],
            cancel
        );
    }

    private Replica NewDevice(int who) => new((ulong)random.NextInt64(), writers[who].Id);
}
