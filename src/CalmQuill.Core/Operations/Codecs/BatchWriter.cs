using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>A batch being written: what its operations share.</summary>
internal sealed class BatchWriter(int operations)
{
    /// <summary>Everything but samples, which stand in columns of their own.</summary>
    public ByteWriter Head { get; } = new(operations * 24 + 16);

    public SampleCodec.Writers Columns { get; } = new();

    /// <summary>The stamp of the operation being written.</summary>
    public Hlc Time { get; set; }

    /// <summary>What the stroke before was written with and on.</summary>
    public (Pen Pen, Guid Layer) Before { get; set; }
}
