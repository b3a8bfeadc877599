# frozen_string_literal: true

require "open3"

RSpec.describe "The core by itself" do
  # Loads every file of the core in a Ruby without any gem, each when it is first named.
  script = <<~RUBY
    root = File.expand_path("lib/roost/core")
    camel = ->(name) { name.split("_").map(&:capitalize).join }
    mount = lambda do |folder, mod|
      Dir.children(folder).sort.each do |child|
        path = File.join(folder, child)
        if File.directory?(path)
          file = path + ".rb"
          if %w[lesson people record live sitting].include?(child) && !File.exist?(file) then mount.(path, mod)
          elsif File.exist?(file) then $folders[mod.name + "::" + camel.(child)] = path
          else mount.(path, mod.const_set(camel.(child), Module.new))
          end
        else
          mod.autoload(camel.(File.basename(child, ".rb")), path)
        end
      end
    end
    # What lies in a class's folder is there as soon as the class begins to be.
    $folders = {}
    TracePoint.new(:class) { |point| $folders.delete(point.self.name)&.then { |path| mount.(path, point.self) } }.enable
    module Roost; module Core; end; end
    mount.(root, Roost::Core)
    visit = lambda do |mod|
      mod.constants(false).each do |name|
        value = mod.const_get(name)
        visit.(value) if value.is_a?(Module) && value.name.to_s.start_with?(mod.name + "::")
      end
    end
    visit.(Roost::Core)
    loaded = $LOADED_FEATURES.select { |file| file.start_with?(root) }
    missing = Dir[root + "/**/*.rb"] - loaded
    abort "not loaded: " + missing.join(", ") unless missing.empty?
    abort "gems loaded" if defined?(Gem)
    print Roost::Core::Game::Points.for(points: 100, mark: 1r, seconds: 20, time_limit: 20, free: 10, speed: 1/4r)
  RUBY

  it "loads with the standard library only" do
    output, status = Open3.capture2e({ "RUBYOPT" => nil }, "ruby", "--disable-gems", "-e", script, chdir: Roost::Settings::ROOT)
    expect(output).to eq("88")
    expect(status).to be_success
  end
end
