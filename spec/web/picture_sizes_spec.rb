# frozen_string_literal: true

RSpec.describe "A photograph in widths" do
  let(:account) { teacher }
  let(:picture) do
    Roost::Operations::KeepPicture.new.call(account, StringIO.new(Photographs.jpeg(1)), "photo.jpg").value
  end
  let(:media) { Roost::Store::Media.new }

  def width_of(bytes) = Vips::Image.new_from_buffer(bytes, "").width

  it "is kept in 480, 960 and 1,600 pixels across, and handed out so" do
    expect(picture.widths).to eq([480, 960, 1600])
    picture.widths.each do |width|
      get "/media/#{picture.file}.#{width}.webp"
      expect([last_response.status, last_response.headers["content-type"], width_of(last_response.body)])
        .to eq([200, "image/webp", width])
      expect(last_response.headers["cache-control"]).to include("immutable")
    end
    expect(get("/media/#{picture.file}.481.webp").status).to eq(404)
    expect(get("/media/#{"0" * 64}.jpg.480.webp").status).to eq(404)
  end

  it "is made in a width that is missing when it is asked for, and is itself where it can't be" do
    path = media.size(picture.file, 960)
    File.delete(path)
    expect(width_of(get("/media/#{picture.file}.960.webp").body)).to eq(960)
    File.delete(path)
    waiting = Array.new(Roost::Web::Media::WAITING) { Roost::Web::Media.turns.push(true) }
    begin
      get "/media/#{picture.file}.960.webp"
    ensure
      waiting.each { Roost::Web::Media.turns.pop }
    end
    expect(last_response.headers).to include("content-type" => "image/jpeg", "cache-control" => /max-age=60\b/)
  end

  it "is purged with its widths" do
    sizes = picture.widths.map { |width| media.size(picture.file, width) }
    database[:media].update(created_at: Sequel.lit("now() - interval '2 days'"))
    media.purge(Roost::Store::Purge.new)
    expect(sizes.map { |path| File.exist?(path) } << media.find(picture.file)).to eq([false, false, false, nil])
  end

  it "keeps its widths through a purge while it is used" do
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", pictures: [picture])])
    kept_lesson(account, lesson)
    sizes = picture.widths.map { |width| media.size(picture.file, width) }
    database[:media].update(created_at: Sequel.lit("now() - interval '2 days'"))
    sizes.each { |path| File.utime(Time.now - 200_000, Time.now - 200_000, path) }
    media.purge(Roost::Store::Purge.new)
    expect(sizes.map { |path| File.exist?(path) }).to eq([true, true, true])
  ensure
    sizes&.each { |path| File.utime(Time.now, Time.now, path) if File.exist?(path) }
  end

  it "waits for its turn at a seat, and comes as the browser likes elsewhere" do
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", pictures: [picture]), slide("s2", pictures: [picture]),
                                                              slide("s3", prompt: choice(poll: true))])
    session = kept_session(account, lesson)
    seat = take_seat(session).last
    ahead = -> { get("/seat/#{seat}").body[/<i data-ahead[^>]*>/] }
    expect(ahead.call).to include(%(data-src="/media/#{picture.file}" data-widths="480 960 1600"))
    command(session, "begin")
    img = get("/seat/#{seat}").body[/<img[^>]*class="slide-picture"[^>]*>/]
    expect(img).to include(%(data-src="/media/#{picture.file}"), 'width="2000"', 'height="1500"')
    expect(img).not_to match(/ src=/)
    get "/screen/#{session.screen_key}"
    expect(last_response.body).to match(%r{<source type="image/webp" srcset="/media/#{picture.file}.480.webp 480w, [^"]*" size})
    sign_in
    get "/lessons/#{session.lesson_id}"
    expect(last_response.body).to include(%(<source type="image/webp" srcset="/media/#{picture.file}.480.webp 480w))
  end

  it "is not told of ahead while a question is open or still to come" do
    slides = [slide("s1", prompt: choice(poll: true)), slide("s2", pictures: [picture])]
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: slides)
    session = kept_session(account, lesson, opens_itself: false)
    seat = take_seat(session).last
    ahead = -> { get("/seat/#{seat}").body.include?("data-ahead") }
    command(session, "begin")
    told = [ahead.call]
    %w[open close].each do |name|
      command(session, name)
      told << ahead.call
    end
    expect(told).to eq([false, false, true])
  end
end
