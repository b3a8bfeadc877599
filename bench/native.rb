# frozen_string_literal: true

require "fileutils"
require "open3"

module Bench
  # Programs in C (bench/c), so that neither a baseline nor whoever listens costs more than it must. Compiled when they are
  # first asked for.
  module Native
    FOLDER = File.join(__dir__, "c")

    # @param name [String] of a file in bench/c
    # @return [String] path of the program
    def self.program(name)
      source = File.join(FOLDER, "#{name}.c")
      Roost.settings.var("bench-c", name).tap do |path|
        next if File.exist?(path) && File.mtime(path) > File.mtime(source)

        FileUtils.mkdir_p(File.dirname(path))
        system("cc", "-O2", "-D_GNU_SOURCE", "-Wall", "-o", path, source, exception: true)
      end
    end

    # A server of streams in C, for the block.
    # @yieldparam port [Integer]
    def self.bare_streams
      port = Server.free_port
      process = spawn(program("bare_streams"), port.to_s)
      sleep 0.5
      yield port
    ensure
      Process.kill(:TERM, process)
      Process.wait(process)
    end

    # Many event streams, held open by a process of their own.
    class Streams
      # @param paths [Array<String>] one stream each
      # @yieldparam path [String]
      # @yieldreturn [Array<String>] headers of its request
      def initialize(port, paths)
        @in, @out, @process = Open3.popen2(Native.program("streams"), port.to_s)
        paths.each { |path| @in.puts([path, *(yield(path) if block_given?)].join("\t")) }
        @in.puts
      end

      # What each stream has to be sent, in whole events.
      # @return [Array(Float, String)] clock time when the last one had been, and what the first one got
      def wait_for(mark, seconds: 30)
        @in.puts("#{seconds}\t#{mark}")
        time, length = (@out.gets || raise("not heard: #{mark}")).split
        [time.to_f, @out.read(length.to_i)]
      end

      def close
        @in.close
        @process.value
      end
    end
  end
end
