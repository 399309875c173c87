using System.Buffers.Binary;
using CalmQuill.Core.Access;
using CalmQuill.Core.History;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Documents;

/// <summary>Operations in and out: a device sends what waits in its outbox, and asks for all after a number.</summary>
internal static class DocumentEndpoints
{
    public const string BatchType = "application/vnd.calm-quill.operations";

    /// <summary>Says that what is answered is all there is to be seen, whatever the device holds.</summary>
    public const string WholeHeader = "X-Quill-Whole";

    public const string SequenceHeader = "X-Quill-Sequence";
    public const int MostBodyBytes = 8 * 1024 * 1024;
    private const int MostFrames = 5_000;

    /// <summary>What became of one frame: its numbers when stored, the reason when not.</summary>
    private sealed record FrameResult(long Sequence, RefusedFrame? Refused);

    private sealed record RefusedFrame(string Code, string Sentence, string Pattern, IReadOnlyList<object> Values)
    {
        public static RefusedFrame? Of(Refusal? refusal) =>
            refusal is null
                ? null
                : new RefusedFrame(refusal.Code, refusal.Sentence.English, refusal.Sentence.Pattern, refusal.Sentence.Values);
    }

    public static void MapDocuments(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/spaces/{space:guid}/documents/{kind}/{id:guid}/operations").RequireAuthorization();
        group.MapGet("/", After);
        group.MapPost("/", Append).Takes(MostBodyBytes);
    }

    private static async Task<IResult> After(
        ReadableDocument readable,
        long? after,
        HttpContext http,
        DocumentStore documents,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        var (document, from) = (readable.Document, Math.Max(0, after ?? 0));
        var seesNoPast = await spaces.SeesNoPast(readable, cancel);
        var (operations, last) = seesNoPast
            ? await Standing(document, from, documents, cancel)
            : await documents.After(document, from, cancel);
        http.Response.Headers[SequenceHeader] = last.ToString(System.Globalization.CultureInfo.InvariantCulture);
        if (seesNoPast)
            http.Response.Headers[WholeHeader] = "1";
        http.Response.Headers.CacheControl = "no-store";
        return Results.Bytes(OperationCodec.Encode(operations), BatchType);
    }

    /// <summary>All that stands, in place of what came since: what stood before is nothing that may be seen here. None where nothing came.</summary>
    private static async Task<(List<Operation> Operations, long LastSequence)> Standing(
        DocumentRef page,
        long after,
        DocumentStore documents,
        CancellationToken cancel
    )
    {
        if (((await documents.Find(page, cancel))?.LastSequence ?? 0) <= after)
            return ([], after);
        var (operations, last) = await documents.After(page, 0, cancel);
        var standing = new PageDocument();
        foreach (var operation in operations)
            standing.Apply(operation);
        return (StandingPage.Of(standing), last);
    }

    /// <summary>The body is frames: a length of four bytes, lowest first, then a batch of one operation. Each frame is judged by itself.
    /// What was saved as a file in one browser is put back in another under the numbers that the first signed with, so that it is there once though both send it.</summary>
    private static async Task<IResult> Append(
        WritableDocument writable,
        bool? putBack,
        HttpContext http,
        DocumentWriter writer,
        DocumentStore documents,
        SpaceStore spaces,
        GuestStore guests,
        SpaceQuotas quotas,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body, cancel);
        if (Frames(body.GetBuffer().AsMemory(0, (int)body.Length)) is not { } frames)
            return Problems.BadInput($"The body is not a row of framed operations, or holds more than {MostFrames}.");

        var now = clock.GetUtcNow().ToUnixTimeMilliseconds();
        var results = new FrameResult?[frames.Count];
        var accepted = new List<(int Frame, Operation Operation)>();
        for (var i = 0; i < frames.Count; i++)
        {
            var (operation, refusal) = Judge(frames[i].Span, writable, now);
            if (operation is null)
                results[i] = new FrameResult(0, RefusedFrame.Of(refusal));
            else
                accepted.Add((i, operation));
        }

        if (writable is { IsGuest: true, Document.Kind: DocumentKind.Notebook } && accepted.Count > 0)
            await KeepWithin(writable, accepted, results, guests, cancel);
        if (
            writable.Role is not Role.Owner
            && accepted.Any(entry => TouchRules.Concerns(entry.Operation.Change))
            && await spaces.TouchIn(writable.Document.Space, cancel) is not Touch.Everything and var touch
        )
            await KeepToTouch(touch, writable, accepted, results, documents, spaces, cancel);
        if (!Rights.MayWrite(writable.Role))
            await KeepToOwnAnswers(writable, accepted, results, documents, cancel);
        if (accepted.Count == 0)
            return Results.Ok(
                new
                {
                    serverTime = now,
                    lastSequence = 0L,
                    nearlyFull = false,
                    results,
                }
            );
        if (await quotas.Problem(writable.Document.Space, body.Length, cancel) is { } full)
            return Problems.Of(StatusCodes.Status507InsufficientStorage, full);
        var written = await writer.Append(
            writable.Document,
            writable.Visitor.Person,
            putBack is true ? null : writable.Visitor.Device,
            [.. accepted.Select(entry => entry.Operation)],
            cancel
        );
        if (written.Refused is { } refused)
            return Problems.Of(refused == DocumentStore.Erased ? StatusCodes.Status410Gone : StatusCodes.Status409Conflict, refused);
        for (var i = 0; i < accepted.Count; i++)
            results[accepted[i].Frame] = new FrameResult(written.Sequences[i], RefusedFrame.Of(written.Refusals[i]));
        return Results.Ok(
            new
            {
                serverTime = now,
                lastSequence = written.LastSequence,
                nearlyFull = written.Fullness >= DocumentLimits.Near,
                results,
            }
        );
    }

    /// <summary>Refuses what a guest's changes to a notebook would reach beyond it.</summary>
    private static async Task KeepWithin(
        WritableDocument writable,
        List<(int Frame, Operation Operation)> accepted,
        FrameResult?[] results,
        GuestStore guests,
        CancellationToken cancel
    )
    {
        var named = accepted.SelectMany(entry => GuestRules.PagesNamed(entry.Operation.Change)).ToHashSet();
        var notTheirs =
            named.Count == 0
                ? []
                : await guests.NotTheirs(writable.Document.Space, writable.Document.Id, named, writable.Visitor.Person, cancel);
        Refuse(
            accepted,
            results,
            change =>
                GuestRules.Check(change)
                ?? (
                    GuestRules.PagesNamed(change).Any(notTheirs.Contains)
                        ? new Refusal(Refusal.NotAllowedCode, $"This page belongs to another notebook.")
                        : null
                )
        );
    }

    /// <summary>Refuses what would change others' things where the group does not want that.</summary>
    private static async Task KeepToTouch(
        Touch touch,
        WritableDocument writable,
        List<(int Frame, Operation Operation)> accepted,
        FrameResult?[] results,
        DocumentStore documents,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        var (document, person) = (writable.Document, writable.Visitor.Person);
        Func<Change, Refusal?> check;
        if (document.Kind is DocumentKind.Page or DocumentKind.Aside)
        {
            var theirs = accepted.Select(entry => entry.Operation.Id).ToHashSet();
            var named = accepted
                .SelectMany(entry => TouchRules.Altered(entry.Operation.Change))
                .Where(id => !theirs.Contains(id))
                .ToHashSet();
            theirs.UnionWith(await documents.WrittenBy(document, person, named, cancel));
            check = change => TouchRules.CheckPage(touch, writable.Role, change, theirs.Contains);
        }
        else
        {
            var theirs = await MadeBy(document, person, accepted, documents, spaces, cancel);
            check = change => TouchRules.CheckPlaces(touch, writable.Role, change, theirs.Contains);
        }
        Refuse(accepted, results, check);
    }

    /// <summary>Who may not write takes back what they answered themselves, and nobody else's.</summary>
    private static async Task KeepToOwnAnswers(
        WritableDocument writable,
        List<(int Frame, Operation Operation)> accepted,
        FrameResult?[] results,
        DocumentStore documents,
        CancellationToken cancel
    )
    {
        var named = accepted
            .Select(entry => entry.Operation.Change)
            .OfType<Change.AnswerWithdrawn>()
            .Select(change => change.Answer)
            .ToList();
        var theirs = accepted.Select(entry => entry.Operation.Id).ToHashSet();
        theirs.UnionWith(await documents.WrittenBy(writable.Document, writable.Visitor.Person, named, cancel));
        Refuse(
            accepted,
            results,
            change => change is Change.AnswerWithdrawn { Answer: var answer } && !theirs.Contains(answer) ? Denied : null
        );
    }

    private static readonly Refusal Denied = new(Refusal.NotAllowedCode, $"This answer is somebody else's.");

    /// <summary>Takes out what may not enter, and says why.</summary>
    private static void Refuse(List<(int Frame, Operation Operation)> accepted, FrameResult?[] results, Func<Change, Refusal?> check) =>
        accepted.RemoveAll(entry =>
        {
            var refusal = check(entry.Operation.Change);
            if (refusal is not null)
                results[entry.Frame] = new FrameResult(0, RefusedFrame.Of(refusal));
            return refusal is not null;
        });

    /// <summary>What of a library or notebook a person made, by what was received first; what comes with the same request is theirs where it is new.</summary>
    private static async Task<HashSet<Guid>> MadeBy(
        DocumentRef document,
        Guid person,
        List<(int Frame, Operation Operation)> accepted,
        DocumentStore documents,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        var news = accepted.Select(entry => entry.Operation).Where(operation => operation.Change is Change.NodePlaced or Change.PageAdded);
        if (document.Kind is DocumentKind.Notebook)
        {
            var notebook = await documents.Notebook(document.Space, document.Id, cancel);
            foreach (var operation in news)
                notebook.Apply(operation);
            return [.. notebook.Made(person)];
        }

        var targets = accepted.Select(entry => TouchRules.Removed(entry.Operation.Change)).OfType<Guid>().ToHashSet();
        var makers = await spaces.MakersOf(document.Space, targets, cancel);
        var placed = news.Select(operation => operation.Change).OfType<Change.NodePlaced>().Select(change => change.Node).ToHashSet();
        return [.. targets.Where(target => makers.TryGetValue(target, out var maker) ? maker == person : placed.Contains(target))];
    }

    private static (Operation? Operation, Refusal? Refusal) Judge(ReadOnlySpan<byte> frame, WritableDocument writable, long now)
    {
        try
        {
            var operations = OperationCodec.Decode(frame);
            if (operations.Count != 1)
                return (null, new Refusal("malformed", $"A frame holds exactly one operation."));
            var refusal = OperationRules.Check(operations[0], writable.Document.Kind, writable.Role, writable.Visitor.Person, now);
            return refusal is null ? (operations[0], null) : (null, refusal);
        }
        catch (OperationFormatException problem)
        {
            return (null, new Refusal("malformed", Sentence.Foreign(problem.Message)));
        }
    }

    private static List<ReadOnlyMemory<byte>>? Frames(ReadOnlyMemory<byte> body)
    {
        var frames = new List<ReadOnlyMemory<byte>>();
        while (body.Length > 0)
        {
            if (body.Length < 4 || frames.Count == MostFrames)
                return null;
            var length = BinaryPrimitives.ReadUInt32LittleEndian(body.Span);
            if (length > (uint)(body.Length - 4))
                return null;
            frames.Add(body.Slice(4, (int)length));
            body = body[(4 + (int)length)..];
        }

        return frames;
    }
}
