using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>The two forms of one kind of change: as bytes in a batch, and as JSON for people. Both say the same; see docs/operations.md.</summary>
internal abstract class ChangeCodec
{
    private static readonly Dictionary<ChangeKind, ChangeCodec> ByKind = new ChangeCodec[]
    {
        new NodePlacedCodec(),
        new PropertySetCodec(),
        new PageAddedCodec(),
        new StrokeAddedCodec(),
        new ItemsRemovedCodec(),
        new ItemsShiftedCodec(),
        new GapsAddedCodec(),
        new EffectSetCodec(),
        new TagSetCodec(),
        new VisitedCodec(),
        new SpotAddedCodec(),
        new SpotSetCodec(),
        new ItemsTransformedCodec(),
        new ShapeAddedCodec(),
        new ItemsSetCodec(),
        new LayerSetCodec(),
        new StepsJoinedCodec(),
        new OrdersSetCodec(),
        new ItemsAnchoredCodec(),
        new AnswerAddedCodec(),
        new AnswerWithdrawnCodec(),
        new TextAddedCodec(),
        new ThingAddedCodec(),
        new TextTypedCodec(),
    }.ToDictionary(codec => codec.Kind);

    protected abstract ChangeKind Kind { get; }

    /// <summary>The codec of a kind; null for one that is not known here.</summary>
    public static ChangeCodec? Of(ChangeKind kind) => ByKind.GetValueOrDefault(kind);

    public abstract void Write(BatchWriter batch, Change change);

    /// <exception cref="OperationFormatException">The bytes are not such a change.</exception>
    public abstract Change Read(ref BatchReader batch);

    public abstract void Write(Utf8JsonWriter json, Change change);

    /// <exception cref="OperationFormatException">The JSON is not such a change; other exceptions of reading JSON mean the same.</exception>
    public abstract Change Read(JsonElement json);
}

/// <inheritdoc/>
internal abstract class ChangeCodec<T>(ChangeKind kind) : ChangeCodec
    where T : Change
{
    protected override ChangeKind Kind => kind;

    public override void Write(BatchWriter batch, Change change) => Write(batch, (T)change);

    public override void Write(Utf8JsonWriter json, Change change) => Write(json, (T)change);

    protected abstract void Write(BatchWriter batch, T change);

    protected abstract void Write(Utf8JsonWriter json, T change);
}
