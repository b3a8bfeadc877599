# frozen_string_literal: true

require "fileutils"
require "open3"
require "rubocop-ast"
require "tmpdir"

# A kind of prompt is its folders, and nothing else knows which kinds there are.
RSpec.describe "A kind of prompt" do
  root = Roost::Settings::ROOT
  names = Roost::Core::Kinds::NAMES
  # Kinds whose names are no other words of ours.
  telling = %w[choice gaps posts sketch spots]

  def self.files(root, pattern) = Dir[File.join(root, pattern)].grep_v(%r{/kinds/\w+/})

  def self.places(root, paths, pattern)
    paths.flat_map do |path|
      File.readlines(path).each_with_index.filter_map do |line, at|
        "#{path.delete_prefix("#{root}/")}:#{at + 1} #{line[pattern]}" if line.match?(pattern)
      end
    end
  end

  ruby = files(root, "{lib,bin,config,bench}/**/*").select { |path| File.file?(path) && !path.end_with?(".gz") }

  it "is named by no constant and no text outside its folders" do
    constants = /\bKinds::(?:#{names.map(&:capitalize).join("|")})\b/
    texts = /["'](?:#{telling.join("|")})["'](?!:)|\s:(?:#{telling.join("|")})\b/
    expect(ruby.length).to be > 250
    expect(self.class.places(root, ruby, Regexp.union(constants, texts))).to eq([])
  end

  it "has styles and elements that nothing else names" do
    styles = Dir[File.join(root, "assets/kinds/*/style.scss")].to_h do |path|
      selectors = File.read(path).gsub(%r{//.*|\{[^{}]*\}}, " ")
      [path[%r{kinds/(\w+)/}, 1], selectors.scan(/\.([a-z][a-z-]+)/).flatten.uniq]
    end
    elements = Dir[File.join(root, "assets/kinds/*/*.js")].flat_map { |path| File.read(path).scan(/define\("([\w-]+)"/).flatten }
    own = styles.transform_values { |classes| classes.select { |name| styles.values.one? { |all| all.include?(name) } } }
    beginnings = names.map { |name| name.delete_suffix("s") }.join("|")
    theirs = own.values.flatten.grep(/\A(?:#{beginnings}).*-/)
    pattern = /(?<![\w-])(?:#{[*theirs, *elements].map { |name| Regexp.escape(name) }.join("|")})(?![\w-])/
    others = self.class.files(root, "assets/**/*.{js,scss}") + self.class.files(root, "lib/roost/web/**/*.{erb,rb}")
    expect([theirs.length, elements.length, others.length]).to match([be > 30, be > 7, be > 100])
    expect(self.class.places(root, others, pattern)).to eq([])
  end

  it "goes through builder, preview, seat, Desk, class screen, results, sheet and practice class by its folders alone" do
    Dir.mktmpdir("roost", "/tmp") do |copy|
      parts = %w[lib assets config bin db spec demo library starters Gemfile Gemfile.lock package.json package-lock.json]
      FileUtils.cp_r(parts.map { |part| File.join(root, part) }, copy)
      %w[node_modules vendor].each { |folder| FileUtils.ln_s(File.join(root, folder), copy) }
      { "core" => "lib/roost", "exchange" => "lib/roost", "web" => "lib/roost", "assets" => "." }.each do |part, beside|
        FileUtils.cp_r(File.join(root, "spec/support/toy_kind", part), File.join(copy, beside))
      end
      settings = { "DATABASE_URL" => Roost.settings.database_url, "ROOST_ENV" => "test", "BUNDLE_PATH" => "vendor/bundle" }
      said, built = Open3.capture2e(settings, "bundle", "exec", "ruby", "-Ilib", "bin/assets", chdir: copy)
      expect(built).to be_success, said
      said, walked = Open3.capture2e(settings, "bundle", "exec", "rspec", "-r", "./spec/spec_helper",
                                     "spec/support/toy_kind/walk.rb", chdir: copy)
      expect(walked).to be_success, said
      expect(said).to include("2 examples, 0 failures")
    end
  end
end
