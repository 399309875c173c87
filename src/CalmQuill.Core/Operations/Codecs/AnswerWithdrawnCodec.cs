using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class AnswerWithdrawnCodec() : ChangeCodec<Change.AnswerWithdrawn>(ChangeKind.AnswerWithdrawn)
{
    protected override void Write(BatchWriter batch, Change.AnswerWithdrawn change) => Parts.WriteId(batch.Head, change.Answer);

    public override Change Read(ref BatchReader batch) => new Change.AnswerWithdrawn(Parts.ReadId(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.AnswerWithdrawn change) =>
        json.WriteString("answer", change.Answer.ToString());

    public override Change Read(JsonElement json) => new Change.AnswerWithdrawn(OpId.Parse(JsonParts.Text(json, "answer")));
}
