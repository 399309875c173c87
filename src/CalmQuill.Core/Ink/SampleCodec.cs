using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Ink;

/// <summary>The stored form of a stroke's samples: each channel by itself as second differences in zigzag variable-length integers.</summary>
public static class SampleCodec
{
    private const int HasTilt = 1;
    private const int SteadyPressure = 2;

    public static void Write(ByteWriter writer, StrokeSamples samples)
    {
        var steady = samples.Pressure.AsSpan().IndexOfAnyExcept(samples.Pressure[0]) < 0;
        writer.Varint((ulong)samples.Count);
        writer.Byte((byte)((samples.TiltX is null ? 0 : HasTilt) | (steady ? SteadyPressure : 0)));
        WriteChannel(writer, samples.X);
        WriteChannel(writer, samples.Y);
        WriteChannel(writer, steady ? samples.Pressure.AsSpan(0, 1) : samples.Pressure);
        WriteChannel(writer, samples.Time);
        if (samples.TiltX is null || samples.TiltY is null) return;
        WriteChannel(writer, samples.TiltX);
        WriteChannel(writer, samples.TiltY);
    }

    /// <exception cref="OperationFormatException">The bytes are not a stroke's samples, or there are none, or too many.</exception>
    public static StrokeSamples Read(ref ByteReader reader)
    {
        var count = reader.Count(StrokeSamples.MostSamples, 3, "samples in one stroke");
        if (count == 0) throw new OperationFormatException("A stroke has no samples.");
        var flags = reader.Byte();
        if (flags > 3) throw new OperationFormatException("A stroke has channels that are not known here.");
        var x = ReadChannel(ref reader, count);
        var y = ReadChannel(ref reader, count);
        int[] pressure;
        if ((flags & SteadyPressure) != 0)
        {
            pressure = new int[count];
            Array.Fill(pressure, reader.Int32());
        }
        else pressure = ReadChannel(ref reader, count);

        var time = ReadChannel(ref reader, count);
        return (flags & HasTilt) != 0
            ? new StrokeSamples(x, y, pressure, time, ReadChannel(ref reader, count), ReadChannel(ref reader, count))
            : new StrokeSamples(x, y, pressure, time);
    }

    private static void WriteChannel(ByteWriter writer, ReadOnlySpan<int> values)
    {
        long before = 0, step = 0;
        for (var i = 0; i < values.Length; i++)
        {
            var nextStep = values[i] - before;
            writer.Signed(nextStep - step);
            (before, step) = (values[i], i == 0 ? 0 : nextStep);
        }
    }

    private static int[] ReadChannel(ref ByteReader reader, int count)
    {
        var values = new int[count];
        long before = 0, step = 0;
        for (var i = 0; i < count; i++)
        {
            var nextStep = step + reader.Signed();
            var value = before + nextStep;
            if (value is < int.MinValue or > int.MaxValue) throw new OperationFormatException("A stroke holds a number out of range.");
            values[i] = (int)value;
            (before, step) = (value, i == 0 ? 0 : nextStep);
        }

        return values;
    }
}
