using System.Text.Json;
using CalmQuill.Core.Operations.Codecs;

namespace CalmQuill.Core.Operations;

/// <summary>Operations as JSON, for people and for the open archive. Says the same as the binary codec; see docs/operations.md.</summary>
public static class OperationJson
{
    public static void Write(Utf8JsonWriter json, Operation operation)
    {
        json.WriteStartObject();
        json.WriteString("id", operation.Id.ToString());
        json.WriteNumber("time", operation.Time.UnixMilliseconds);
        json.WriteNumber("logical", operation.Time.Logical);
        json.WriteString("author", operation.Author);
        json.WriteString("kind", operation.Change.Kind.ToString());
        Codec(operation.Change.Kind).Write(json, operation.Change);
        json.WriteEndObject();
    }

    /// <exception cref="OperationFormatException">The JSON is not an operation.</exception>
    public static Operation Read(JsonElement json) =>
        Understood(() =>
            new Operation(
                OpId.Parse(JsonParts.Text(json, "id")),
                Hlc.At(json.GetProperty("time").GetInt64(), json.GetProperty("logical").GetInt32()),
                json.GetProperty("author").GetGuid(),
                Codec(KindOf(json)).Read(json)
            )
        );

    /// <summary>What an operation does, alone: the same form, with <c>kind</c> and the kind's own parts.</summary>
    /// <exception cref="OperationFormatException">The JSON is not a change.</exception>
    public static Change ReadChange(JsonElement json) => Understood(() => Codec(KindOf(json)).Read(json));

    private static ChangeKind KindOf(JsonElement json) =>
        Enum.TryParse<ChangeKind>(JsonParts.Text(json, "kind"), out var kind)
            ? kind
            : throw new OperationFormatException($"The kind “{JsonParts.Text(json, "kind")}” is not known here.");

    private static T Understood<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception problem)
            when (problem
                    is KeyNotFoundException
                        or InvalidOperationException
                        or FormatException
                        or ArgumentException
                        or IndexOutOfRangeException
            )
        {
            throw problem as OperationFormatException
                ?? new OperationFormatException("The JSON is not an operation: " + problem.Message, problem);
        }
    }

    private static ChangeCodec Codec(ChangeKind kind) =>
        ChangeCodec.Of(kind) ?? throw new OperationFormatException($"The kind {kind} has no JSON form.");
}
