# frozen_string_literal: true

require "json"

module CoursePage
  # What was posted, kept in a file.
  class Posts
    MOST = 500
    FIELDS = { "title" => 200, "link" => 500, "class_name" => 100, "opens" => 40, "closes" => 40 }.freeze

    # @param path [String] of the file
    def initialize(path)
      @path = path
      @lock = Mutex.new
    end

    # @return [Array<Hash{String=>String}>] the latest first
    def all = @lock.synchronize { read }

    # @param post [Hash] of FIELDS
    # @return [String, nil] why it can't be taken
    def add(post)
      bad = FIELDS.find { |name, most| !post.fetch(name, "").is_a?(String) || post.fetch(name, "").length > most }
      return "“#{bad.first}” is no text, or too long." if bad
      return "A title and a link are needed." unless post["title"].to_s.strip != "" && post["link"].to_s.match?(%r{\Ahttps?://})

      @lock.synchronize { write([post.slice(*FIELDS.keys), *read].first(MOST)) }
      nil
    end

    private

    def read = File.exist?(@path) ? JSON.parse(File.read(@path)) : []

    # Whole or not at all.
    def write(posts)
      draft = "#{@path}.#{Process.pid}"
      File.write(draft, JSON.pretty_generate(posts))
      File.rename(draft, @path)
      nil
    end
  end
end
