# frozen_string_literal: true

require "json"
require "rack"
require "tilt"
require "tilt/erubi"
require_relative "posts"
require_relative "preview"

module CoursePage
  # The page of a course as a Rack application: what was posted, by class, and what a pasted link looks like.
  class Site
    MOST_BODY = 10_000
    HTML = { "content-type" => "text/html; charset=utf-8" }.freeze
    JSON_TYPE = { "content-type" => "application/json" }.freeze
    PAGE = File.expand_path("page.erb", __dir__)

    # @param posts [Posts]
    # @param preview [Preview]
    def initialize(posts, preview)
      @posts = posts
      @preview = preview
      @page = Tilt::ErubiTemplate.new(PAGE, escape_html: true, default_encoding: "UTF-8")
    end

    def call(env)
      request = Rack::Request.new(env)
      case [request.request_method, request.path_info]
      when ["GET", "/"] then [200, HTML.dup, [page(request.GET["paste"].to_s[0, 500])]]
      when ["POST", "/posts"] then post(request)
      else [404, HTML.dup, ["Not here."]]
      end
    end

    private

    def page(pasted)
      @page.render(nil, posts: @posts.all, pasted: pasted, card: pasted.empty? ? {} : @preview.of(pasted))
    end

    def post(request)
      text = request.body.read(MOST_BODY + 1).to_s
      given = text.bytesize <= MOST_BODY ? JSON.parse(text, max_nesting: 2) : nil
      refusal = given.is_a?(Hash) ? @posts.add(given) : "That is too much, or no post."
      [refusal ? 422 : 201, JSON_TYPE.dup, [JSON.generate(refusal ? { message: refusal } : {})]]
    rescue JSON::ParserError, EncodingError
      [400, JSON_TYPE.dup, [JSON.generate({ message: "That is no post." })]]
    end
  end
end
