using System.Buffers.Binary;
using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Server.People;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Documents;

/// <summary>Operations in and out: a device sends what waits in its outbox, and asks for all after a number.</summary>
internal static class DocumentEndpoints
{
    public const string BatchType = "application/vnd.calm-quill.operations";
    public const string SequenceHeader = "X-Quill-Sequence";
    public const int MostBodyBytes = 8 * 1024 * 1024;
    private const int MostFrames = 5_000;

    /// <summary>What became of one frame: its numbers when stored, the reason when not.</summary>
    private sealed record FrameResult(long Sequence, Refusal? Refused);

    public static void MapDocuments(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/spaces/{space:guid}/documents/{kind}/{id:guid}/operations").RequireAuthorization();
        group.MapGet("/", After);
        group.MapPost("/", Append);
    }

    private static async Task<IResult> After(
        Guid space, string kind, Guid id, long? after, HttpContext http, Gate gate, DocumentStore documents, CancellationToken cancel)
    {
        if (!Rights.MayRead(await gate.RoleIn(space, http.User, cancel))) return Problems.NotHere();
        if (await documents.Find(id, cancel) is { } found && found.Space != space) return Problems.NotHere();
        if (await gate.IsShut(id, http.User, cancel)) return Problems.Locked();
        var (operations, last) = await documents.After(id, Math.Max(0, after ?? 0), cancel);
        http.Response.Headers[SequenceHeader] = last.ToString(System.Globalization.CultureInfo.InvariantCulture);
        http.Response.Headers.CacheControl = "no-store";
        return Results.Bytes(OperationCodec.Encode(operations), BatchType);
    }

    /// <summary>The body is frames: a length of four bytes, lowest first, then a batch of one operation. Each frame is judged by itself.</summary>
    private static async Task<IResult> Append(
        Guid space, string kind, Guid id, HttpContext http, Gate gate, DocumentStore documents, DocumentWriter writer, TimeProvider clock, CancellationToken cancel)
    {
        var role = await gate.RoleIn(space, http.User, cancel);
        if (!Rights.MayRead(role)) return Problems.NotHere();
        if (!Rights.MayWrite(role)) return Problems.NotAllowed("You may read here, but not write.");
        if (!Enum.TryParse<DocumentKind>(kind, ignoreCase: true, out var documentKind) || !Enum.IsDefined(documentKind) || id == Guid.Empty)
            return Problems.BadInput("A document is a library, a notebook or a page, under an id of its own.");
        if (documentKind == DocumentKind.Library && id != space) return Problems.BadInput("A space has one library, under the space's own id.");
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body, cancel);
        if (Frames(body.GetBuffer().AsMemory(0, (int)body.Length)) is not { } frames)
            return Problems.BadInput($"The body is not a row of framed operations, or holds more than {MostFrames}.");

        var now = clock.GetUtcNow().ToUnixTimeMilliseconds();
        var results = new FrameResult?[frames.Count];
        var accepted = new List<(int Frame, Operation Operation)>();
        for (var i = 0; i < frames.Count; i++)
        {
            var (operation, refusal) = Judge(frames[i].Span, documentKind, role, http.User.Id(), now);
            if (operation is null) results[i] = new FrameResult(0, refusal);
            else accepted.Add((i, operation));
        }

        var lastSequence = 0L;
        if (accepted.Count > 0)
        {
            if (await documents.Find(id, cancel) is { Erased: true })
                return Problems.Of(StatusCodes.Status410Gone, "erased", "This was erased from the bin. What you wrote is kept on this device only.");
            var stored = await writer.Append(new DocumentRef(space, documentKind, id), [.. accepted.Select(entry => entry.Operation)], cancel);
            if (stored is null) return Problems.Of(StatusCodes.Status409Conflict, "other-document", "This id belongs to another document.");
            for (var i = 0; i < accepted.Count; i++)
            {
                results[accepted[i].Frame] = stored.Sequences[i] > 0
                    ? new FrameResult(stored.Sequences[i], null)
                    : new FrameResult(0, new Refusal("id-used", "This change carries the number of another one."));
            }

            lastSequence = stored.LastSequence;
        }

        return Results.Ok(new { serverTime = now, lastSequence, results });
    }

    private static (Operation? Operation, Refusal? Refusal) Judge(ReadOnlySpan<byte> frame, DocumentKind kind, Role role, Guid sender, long now)
    {
        try
        {
            var operations = OperationCodec.Decode(frame);
            if (operations.Count != 1) return (null, new Refusal("malformed", "A frame holds exactly one operation."));
            return OperationRules.Check(operations[0], kind, role, sender, now) is { } refusal ? (null, refusal) : (operations[0], null);
        }
        catch (OperationFormatException problem)
        {
            return (null, new Refusal("malformed", problem.Message));
        }
    }

    private static List<ReadOnlyMemory<byte>>? Frames(ReadOnlyMemory<byte> body)
    {
        var frames = new List<ReadOnlyMemory<byte>>();
        while (body.Length > 0)
        {
            if (body.Length < 4 || frames.Count == MostFrames) return null;
            var length = BinaryPrimitives.ReadUInt32LittleEndian(body.Span);
            if (length > (uint)(body.Length - 4)) return null;
            frames.Add(body.Slice(4, (int)length));
            body = body[(4 + (int)length)..];
        }

        return frames;
    }
}
