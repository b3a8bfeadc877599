# frozen_string_literal: true

# Runs specs beside a database cluster of its own, for bin/spread: `spec/run.rb FOLDER ARGUMENT…`, the arguments RSpec's.
# Those that are given the same folder share the files between them.
require "json"
require "roost"
require "rspec/core"

# Takes file after file of those that no other has taken, first those that took longest.
class Sharing < RSpec::Core::Runner
  FOLDER = ARGV.shift
  TIMES = JSON.parse(File.read(File.join(__dir__, "times.json")))

  # A group of examples that another may run.
  module Shared
    def run(reporter) = Sharing.mine?(metadata[:file_path]) ? super : true
  end

  # @param file [String]
  # @return [Boolean] whether it is taken by this process, now or before
  def self.mine?(file)
    (@mine ||= {}).fetch(file) { @mine[file] = free?(File.join(FOLDER, file.tr("/", "-"))) }
  end

  def self.free?(mark)
    File.new(mark, File::WRONLY | File::CREAT | File::EXCL).close || true
  rescue Errno::EEXIST
    false
  end
  private_class_method :free?

  def run_specs(groups)
    longest = groups.sort_by { |group| -TIMES.fetch(group.metadata[:file_path].delete_prefix("./"), 1.0) }
    super(longest.each { |group| group.extend(Shared) })
  end
end

LONGEST = 2_700 # seconds that one process may take; a third of them is usual on a slow machine

# What is written in tests need not outlive the machine, so a database of their own waits for no disk; a server of
# somebody's own (DATABASE_URL) is left as it is.
exit(Roost::Setup::Cluster.new(Roost.settings).use do |own|
  Roost::Store::Database.migrate
  settings = ["fsync = off", "lock_timeout = '2min'"].map { |setting| "ALTER SYSTEM SET #{setting}" }
  [*settings, "SELECT pg_reload_conf()"].each { |sql| Roost::Store::Database.connection.run(sql) } if own
  Roost::Store::Database.disconnect
  specs = fork { exit(Sharing.run(ARGV)) }
  # Ruby says where it was when it is ended like this, even where none of its own threads could.
  Thread.new { sleep(LONGEST) && Process.kill(:SEGV, specs) && sleep(30) && Process.kill(:KILL, specs) }
  Process.wait2(specs).last.success? == true
end)
