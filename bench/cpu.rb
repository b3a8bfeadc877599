# frozen_string_literal: true

require "etc"

module Bench
  # CPU time, which says more than milliseconds on a machine that others use, too: of whole processes, by /proc.
  module Cpu
    TICKS = Etc.sysconf(Etc::SC_CLK_TCK).to_f # a second

    # @param pids [Array<Integer>]
    # @return [Float] seconds that they have had, and those that they have waited for
    def self.of(pids) = pids.sum { |pid| stat(pid)[11, 4].sum(&:to_i) } / TICKS

    # @return [Integer] of the process that started it
    def self.parent(pid) = stat(pid)[1].to_i

    # What the kernel says of a process, from its state on; nothing of one that has ended meanwhile.
    def self.stat(pid)
      File.read("/proc/#{pid}/stat").rpartition(") ").last.split
    rescue Errno::ENOENT
      ["0"] * 50
    end
    private_class_method :stat

    # @return [Array<Integer>]
    def self.children(pid) = `pgrep -P #{pid}`.split.map(&:to_i)

    # What a server has had, and PostgreSQL.
    class Meter
      # @param server [Server]
      def initialize(server)
        @server = server
        @postgres = Cpu.parent(Roost::Store::Database.connection.get(Sequel.function(:pg_backend_pid)))
      end

      # @return [Float] seconds of CPU that the program takes while the block runs
      def program(&block) = took(-> { Cpu.of(@server.processes) }, &block)

      # @return [Float] seconds of CPU that the program and the database take while the block runs
      def whole(&block) = took(-> { Cpu.of([*@server.processes, @postgres, *Cpu.children(@postgres)]) }, &block)

      private

      def took(clock)
        before = clock.call
        yield
        clock.call - before
      end
    end
  end
end
