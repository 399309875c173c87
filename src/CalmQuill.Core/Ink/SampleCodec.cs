using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Ink;

/// <summary>The stored form of strokes' samples: each channel as second differences in zigzag variable-length integers, in a column of its own.</summary>
/// <remarks>
/// A batch of many strokes has one column a channel, so that a general compressor finds like beside like. A stroke's place is told as the
/// difference to where the stroke before began.
/// </remarks>
public static class SampleCodec
{
    private const int HasTilt = 1;
    private const int SteadyPressure = 2;
    private const int KnownFlags = HasTilt | SteadyPressure;

    /// <summary>The columns being written, in the order in which they stand in the batch.</summary>
    public sealed class Writers
    {
        public ByteWriter X { get; } = new();

        public ByteWriter Y { get; } = new();

        public ByteWriter Pressure { get; } = new();

        public ByteWriter Time { get; } = new();

        public ByteWriter Tilt { get; } = new();

        public (int X, int Y) Before { get; set; }

        public ByteWriter[] All => [X, Y, Pressure, Time, Tilt];
    }

    /// <summary>The columns being read.</summary>
    public ref struct Readers
    {
        public ByteReader X;
        public ByteReader Y;
        public ByteReader Pressure;
        public ByteReader Time;
        public ByteReader Tilt;
        public (int X, int Y) Before;

        public readonly bool AtEnd => X.AtEnd && Y.AtEnd && Pressure.AtEnd && Time.AtEnd && Tilt.AtEnd;
    }

    public static void Write(ByteWriter head, Writers columns, StrokeSamples samples)
    {
        var steady = samples.Pressure.AsSpan().IndexOfAnyExcept(samples.Pressure[0]) < 0;
        head.Varint((ulong)samples.Count);
        head.Byte((byte)((samples.TiltX is null ? 0 : HasTilt) | (steady ? SteadyPressure : 0)));
        WriteChannel(columns.X, samples.X, columns.Before.X);
        WriteChannel(columns.Y, samples.Y, columns.Before.Y);
        WriteChannel(columns.Pressure, steady ? samples.Pressure.AsSpan(0, 1) : samples.Pressure, 0);
        WriteChannel(columns.Time, samples.Time, 0);
        columns.Before = (samples.X[0], samples.Y[0]);
        if (samples.TiltX is null || samples.TiltY is null)
            return;
        WriteChannel(columns.Tilt, samples.TiltX, 0);
        WriteChannel(columns.Tilt, samples.TiltY, 0);
    }

    /// <exception cref="OperationFormatException">The bytes are not a stroke's samples, or there are none, or too many.</exception>
    public static StrokeSamples Read(ref ByteReader head, ref Readers columns)
    {
        var announced = head.Varint();
        if (announced > StrokeSamples.MostSamples)
            throw new OperationFormatException($"A stroke announces {announced} samples; {StrokeSamples.MostSamples} are allowed.");
        if (announced == 0)
            throw new OperationFormatException("A stroke has no samples.");
        var count = (int)announced;
        var flags = head.Byte();
        if (flags > KnownFlags)
            throw new OperationFormatException("A stroke has channels that are not known here.");
        var x = ReadChannel(ref columns.X, count, columns.Before.X);
        var y = ReadChannel(ref columns.Y, count, columns.Before.Y);
        columns.Before = (x[0], y[0]);
        int[] pressure;
        if ((flags & SteadyPressure) != 0)
        {
            var steady = columns.Pressure.Int32();
            pressure = new int[count];
            Array.Fill(pressure, steady);
        }
        else
            pressure = ReadChannel(ref columns.Pressure, count, 0);

        var time = ReadChannel(ref columns.Time, count, 0);
        return (flags & HasTilt) != 0
            ? new StrokeSamples(x, y, pressure, time, ReadChannel(ref columns.Tilt, count, 0), ReadChannel(ref columns.Tilt, count, 0))
            : new StrokeSamples(x, y, pressure, time);
    }

    private static void WriteChannel(ByteWriter writer, ReadOnlySpan<int> values, long before)
    {
        long step = 0;
        for (var i = 0; i < values.Length; i++)
        {
            var nextStep = values[i] - before;
            writer.Signed(nextStep - step);
            (before, step) = (values[i], i == 0 ? 0 : nextStep);
        }
    }

    private static int[] ReadChannel(ref ByteReader reader, int count, long before)
    {
        if (reader.Remaining < count)
            throw new OperationFormatException("The data ends too early.");
        var values = new int[count];
        long step = 0;
        for (var i = 0; i < count; i++)
        {
            var nextStep = unchecked(step + reader.Signed());
            var value = unchecked(before + nextStep);
            if (value is < int.MinValue or > int.MaxValue)
                throw new OperationFormatException("A stroke holds a number out of range.");
            values[i] = (int)value;
            (before, step) = (value, i == 0 ? 0 : nextStep);
        }

        return values;
    }
}
